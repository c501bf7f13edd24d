import { sql, type SQL } from 'drizzle-orm';
import type { Queries } from '../database/open-database.js';

/** For so long others believe that a server which no longer says anything still works on a thing. */
export const leaseSeconds = 20;
const lease = sql`now() + make_interval(secs => ${leaseSeconds})`;

/** Which server works on which row of a table, in its columns `worker` and `worker_until`. */
export class Leases {
  private readonly table: SQL;

  constructor(
    table: string,
    private readonly isUnderWay: SQL,
  ) {
    this.table = sql`${sql.identifier(table)}`;
  }

  /** Whether the row is under way and nobody else works on it; from now on the worker does. */
  async claim(queries: Queries, id: number, worker: string): Promise<boolean> {
    const { rowCount } = await queries.execute(sql`
      UPDATE ${this.table} SET worker = ${worker}, worker_until = ${lease}
      WHERE id = ${id} AND ${this.isUnderWay} AND (worker IS NULL OR worker = ${worker} OR worker_until < now())`);
    return rowCount === 1;
  }

  /** Says that the worker still works on it. */
  async renew(queries: Queries, id: number, worker: string): Promise<void> {
    await queries.execute(
      sql`UPDATE ${this.table} SET worker_until = ${lease} WHERE id = ${id} AND worker = ${worker}`,
    );
  }

  async release(queries: Queries, id: number, worker: string): Promise<void> {
    await queries.execute(sql`UPDATE ${this.table} SET worker = NULL WHERE id = ${id} AND worker = ${worker}`);
  }

  /** For a database that only one server can have: who worked before it is gone. */
  async releaseAll(queries: Queries): Promise<void> {
    await queries.execute(sql`UPDATE ${this.table} SET worker = NULL WHERE worker IS NOT NULL`);
  }

  /** What is under way and no server works on. */
  async abandoned(queries: Queries): Promise<number[]> {
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT id FROM ${this.table}
      WHERE ${this.isUnderWay} AND (worker IS NULL OR worker_until < now()) ORDER BY id`);
    return rows.map(({ id }) => id);
  }
}
