import { setTimeout } from 'node:timers/promises';
import { Inject, Injectable } from '@nestjs/common';
import { drizzle } from 'drizzle-orm/node-postgres';
import { casing, type OpenDatabase, type Queries } from './open-database.js';
import { DATABASE } from './transactions.js';

/** Writes rows in PostgreSQL's text format (`copyLine`) into a table and its columns, in the transaction it belongs to. */
export type WriteLines = (target: string, lines: string) => Promise<void>;

const restMilliseconds = 100;

/** Writes much at once: as text, several times faster than statements. */
@Injectable()
export class Bulk {
  constructor(@Inject(DATABASE) private readonly database: OpenDatabase) {}

  /**
   * All that `work` writes is kept, or none of it, as with `Transactions.run`. Whoever had to wait meanwhile goes on
   * first: a page asks a dozen times in a row, and should not find another piece of writing before each.
   */
  async run<T>(work: (queries: Queries, write: WriteLines) => Promise<T>): Promise<T> {
    const { pool } = this.database;
    const client = await pool.connect();
    let haveOthersWaited = false;
    try {
      await client.query('BEGIN');
      const result = await work(drizzle({ client, casing }), (target, lines) =>
        this.database.copyIn(client, `COPY ${target} FROM`, Buffer.from(lines)),
      );
      await client.query('COMMIT');
      haveOthersWaited = pool.waitingCount > 0;
      return result;
    } catch (error) {
      await client.query('ROLLBACK');
      throw error;
    } finally {
      client.release();
      if (haveOthersWaited) await setTimeout(restMilliseconds);
    }
  }
}
