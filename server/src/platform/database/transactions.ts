import { AsyncLocalStorage } from 'node:async_hooks';
import { Inject, Injectable } from '@nestjs/common';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import type { PgTransactionConfig } from 'drizzle-orm/pg-core';
import type { Pool, PoolClient } from 'pg';
import { casing, type OpenDatabase, type Queries } from './open-database.js';

export const DATABASE = Symbol('database');

/** The door to the database for services and repositories. */
@Injectable()
export class Transactions {
  private readonly database: NodePgDatabase;
  private readonly pool: Pool;
  private readonly clients = new WeakMap<Queries, PoolClient>();
  private readonly snapshots = new WeakSet<Queries>();
  /** Whether what is under way is inside a transaction, whose connection it would wait for without an end. */
  private readonly inside = new AsyncLocalStorage<true>();
  private readonly listeners: (() => void)[] = [];

  constructor(@Inject(DATABASE) { queries, pool }: OpenDatabase) {
    this.database = queries;
    this.pool = pool;
  }

  /** For a single question outside a transaction; a reply that rests on several is read in a snapshot. */
  get reading(): Queries {
    this.refuseInside();
    return this.database;
  }

  /** Whether these queries see only what was committed, and write nothing. */
  onlyRead(queries: Queries): boolean {
    return queries === this.database || this.snapshots.has(queries);
  }

  /** All that `work` writes is kept, or none of it. Inside, use only what it is given. */
  async run<T>(work: (queries: Queries) => Promise<T>): Promise<T> {
    const done = await this.begin(work);
    for (const listener of this.listeners) listener();
    return done;
  }

  /** What `work` reads, however many questions it asks, is one state of what was committed. It writes nothing. */
  async snapshot<T>(work: (queries: Queries) => Promise<T>): Promise<T> {
    const reading = (queries: Queries) => {
      this.snapshots.add(queries);
      return work(queries);
    };
    return this.begin(reading, { isolationLevel: 'repeatable read', accessMode: 'read only' });
  }

  /** What `work` finds on what it writes; nothing of it is kept, and nobody else sees it. */
  async tryOut<T>(work: (queries: Queries) => Promise<T>): Promise<T> {
    const takenBack = Symbol('taken back');
    let found: { readonly value: T } | undefined;
    try {
      await this.begin(async (queries) => {
        found = { value: await work(queries) };
        throw takenBack;
      });
    } catch (thrown) {
      if (thrown !== takenBack) throw thrown;
    }
    return found!.value;
  }

  /** The connection on which a transaction runs, for what Drizzle has no words for; it lasts as long as the transaction. */
  clientOf(queries: Queries): PoolClient {
    const client = this.clients.get(queries);
    if (!client) throw new Error('these queries are no transaction');
    return client;
  }

  private async begin<T>(work: (queries: Queries) => Promise<T>, how?: PgTransactionConfig): Promise<T> {
    this.refuseInside();
    const client = await this.pool.connect();
    try {
      return await drizzle({ client, casing }).transaction((queries) => {
        this.clients.set(queries, client);
        return this.inside.run(true, () => work(queries));
      }, how);
    } finally {
      client.release();
    }
  }

  private refuseInside(): void {
    if (this.inside.getStore()) throw new Error('inside a transaction, only what it is given is used');
  }

  /** Calls a listener each time something was written, whatever it was. It does its own work later. */
  afterCommit(listener: () => void): void {
    this.listeners.push(listener);
  }
}
