import { Inject, Injectable } from '@nestjs/common';
import { drizzle } from 'drizzle-orm/node-postgres';
import { casing, type OpenDatabase, type Queries } from './open-database.js';
import { DATABASE } from './transactions.js';

/** Writes rows in PostgreSQL's text format (`copyLine`) into a table and its columns, in the transaction it belongs to. */
export type WriteLines = (target: string, lines: string) => Promise<void>;

/** Writes much at once: as text, several times faster than statements. */
@Injectable()
export class Bulk {
  constructor(@Inject(DATABASE) private readonly database: OpenDatabase) {}

  /** All that `work` writes is kept, or none of it, as with `Transactions.run`. */
  async run<T>(work: (queries: Queries, write: WriteLines) => Promise<T>): Promise<T> {
    const client = await this.database.pool.connect();
    try {
      await client.query('BEGIN');
      const result = await work(drizzle({ client, casing }), (target, lines) =>
        this.database.copyIn(client, `COPY ${target} FROM`, Buffer.from(lines)),
      );
      await client.query('COMMIT');
      return result;
    } catch (error) {
      await client.query('ROLLBACK');
      throw error;
    } finally {
      client.release();
    }
  }
}

/** A row in PostgreSQL's text format, with its line end. Source: PostgreSQL 15 documentation, COPY, Text Format. */
export function copyLine(values: readonly (string | number | null)[]): string {
  return `${values.map(copyValue).join('\t')}\n`;
}

function copyValue(value: string | number | null): string {
  if (value === null) return '\\N';
  if (typeof value === 'number' || !/[\\\t\n\r]/.test(value)) return String(value);
  return value.replace(/[\\\t\n\r]/g, (sign) => copyEscapes[sign]!);
}

const copyEscapes: Readonly<Record<string, string>> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };
