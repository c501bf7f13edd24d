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
   * parameters; whoever builds it puts in numbers only, and asks for many rows a page at a time: an embedded database has
   * all of an answer in memory before it gives any of it.
   */
  async read(query: string): Promise<Buffer> {
    const client = await this.database.pool.connect();
    try {
      const pieces: Buffer[] = [];
      for await (const piece of client.query(copyTo(`COPY (${query}) TO STDOUT`))) pieces.push(piece as Buffer);
      return Buffer.concat(pieces);
    } finally {
      client.release();
    }
  }
}
