import { Inject, Injectable } from '@nestjs/common';
import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import type { OpenDatabase, Queries } from './open-database.js';

export const DATABASE = Symbol('database');

/** The door to the database for services and repositories. */
@Injectable()
export class Transactions {
  private readonly database: NodePgDatabase;
  private readonly listeners: (() => void)[] = [];

  constructor(@Inject(DATABASE) { queries }: OpenDatabase) {
    this.database = queries;
  }

  /** For reading outside a transaction. */
  get reading(): Queries {
    return this.database;
  }

  /** All that `work` writes is kept, or none of it. Inside, use only what it is given. */
  async run<T>(work: (queries: Queries) => Promise<T>): Promise<T> {
    const done = await this.database.transaction(work);
    for (const listener of this.listeners) listener();
    return done;
  }

  /** What `work` reads, however many questions it asks, is one state of what was committed. It writes nothing. */
  async snapshot<T>(work: (queries: Queries) => Promise<T>): Promise<T> {
    return this.database.transaction(work, { isolationLevel: 'repeatable read', accessMode: 'read only' });
  }

  /** What `work` finds on what it writes; nothing of it is kept, and nobody else sees it. */
  async tryOut<T>(work: (queries: Queries) => Promise<T>): Promise<T> {
    const takenBack = Symbol('taken back');
    let found: { readonly value: T } | undefined;
    try {
      await this.database.transaction(async (queries) => {
        found = { value: await work(queries) };
        throw takenBack;
      });
    } catch (thrown) {
      if (thrown !== takenBack) throw thrown;
    }
    return found!.value;
  }

  /** Calls a listener each time something was written, whatever it was. It does its own work later. */
  afterCommit(listener: () => void): void {
    this.listeners.push(listener);
  }
}
