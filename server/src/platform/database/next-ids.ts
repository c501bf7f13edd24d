import { sql } from 'drizzle-orm';
import type { Queries } from './open-database.js';

/** Numbers that rows of a table will have, so that what is about to be written can be named before. */
export async function nextIds(queries: Queries, table: string, count: number): Promise<number[]> {
  const { rows } = await queries.execute<{ id: number }>(
    sql`SELECT nextval(pg_get_serial_sequence(${table}, 'id'))::int AS id FROM generate_series(1, ${count}::int)`,
  );
  return rows.map(({ id }) => id);
}
