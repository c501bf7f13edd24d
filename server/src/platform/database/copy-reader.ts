import { Inject, Injectable } from '@nestjs/common';
import { to as copyTo } from 'pg-copy-streams';
import type { OpenDatabase } from './open-database.js';
import { DATABASE } from './transactions.js';

/** Reads much at once: as text, some fifteen times faster than row by row. */
@Injectable()
export class CopyReader {
  constructor(@Inject(DATABASE) private readonly database: OpenDatabase) {}

  /**
   * The rows of a query in PostgreSQL's text format: a line for each, tabs between, \N for null. The query takes no
   * parameters; whoever builds it puts in numbers only.
   */
  async read(query: string): Promise<Buffer> {
    const client = await this.database.pool.connect();
    try {
      const chunks: Buffer[] = [];
      for await (const chunk of client.query(copyTo(`COPY (${query}) TO STDOUT`))) chunks.push(chunk as Buffer);
      return Buffer.concat(chunks);
    } finally {
      client.release();
    }
  }
}
