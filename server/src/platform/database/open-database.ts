import { join } from 'node:path';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import { planOnce, PreparingClient } from './preparing-client.js';
import { announcementsOfPool, announcementsOfServer, type Announcements } from './announcements.js';
import { bringUpToDate } from './bring-up-to-date.js';
import { copyInFromClient } from './copy-in-from-client.js';
import { keepCopies } from './keep-copies.js';
import { startPgliteServer } from './pglite-server.js';

/** The tables, through Drizzle. Services take it, or the transaction they are given in its place. */
export type Queries = Pick<
  NodePgDatabase,
  'select' | 'selectDistinct' | 'selectDistinctOn' | 'insert' | 'update' | 'delete' | 'execute'
>;

/** Writes the rows of a text through a statement (`COPY … FROM`) that the client's transaction then holds. */
export type CopyIn = (client: pg.PoolClient, statement: string, bytes: Buffer) => Promise<void>;

export interface OpenDatabase {
  readonly queries: NodePgDatabase;
  readonly pool: pg.Pool;
  readonly copyIn: CopyIn;
  /** Writes the whole database to one file; only the embedded one can. */
  readonly dump: ((file: string) => Promise<void>) | null;
  /** Where the embedded database lies; null for one on a server. */
  readonly folder: string | null;
  readonly announcements: Announcements;
  close(): Promise<void>;
}

export type DatabaseSource =
  | { readonly kind: 'server'; readonly url: string }
  | { readonly kind: 'folder'; readonly folder: string; readonly seedFile: string | null };

export const casing = 'snake_case';

/** Opens the database and brings its tables up to date. */
export async function openDatabase(source: DatabaseSource): Promise<OpenDatabase> {
  const opened = source.kind === 'server' ? openServer(source.url) : await openFolder(source.folder, source.seedFile);
  try {
    await bringUpToDate(opened.pool, source.kind === 'server' ? 'DATABASE_URL' : `the folder ${source.folder}`);
  } catch (error) {
    await opened.close();
    throw error;
  }
  return opened;
}

function openServer(url: string): OpenDatabase {
  const pool = new pg.Pool({ connectionString: url, Client: PreparingClient, options: `-c ${planOnce}`, max: 10 });
  pool.on('error', () => undefined); // an idle connection that breaks is replaced at the next query
  const announcements = announcementsOfServer(url);
  return {
    ...withPool(pool),
    copyIn: copyInFromClient,
    dump: null,
    folder: null,
    announcements,
    async close() {
      await announcements.close();
      await pool.end();
    },
  };
}

const halfAnHour = 30 * 60 * 1000;

/** PGlite has one connection: a query outside a transaction waits until the transaction is over. */
async function openFolder(folder: string, seedFile: string | null): Promise<OpenDatabase> {
  const server = await startPgliteServer(folder, seedFile);
  // No limit on the wait for the connection: a long transaction is no fault of whoever waits behind it.
  const pool = new pg.Pool({
    host: server.socketFolder,
    user: 'postgres',
    database: 'postgres',
    max: 1,
    Client: PreparingClient,
    // All connections are one session there, and its prepared statements outlast them: a new one would make them again.
    verify: (client, done) => void client.query('DEALLOCATE ALL').then(() => done(), done),
  });
  const dump = (file: string) => server.dump(file);
  const endCopies = keepCopies({ pool, dump, folder: join(folder, 'copies'), everyMs: halfAnHour });
  return {
    ...withPool(pool),
    // The client that asks is the only one, and it waits: nothing comes between.
    copyIn: (_client, statement, bytes) => server.copyIn(statement, bytes),
    dump,
    folder,
    announcements: announcementsOfPool(pool),
    async close() {
      await endCopies();
      await pool.end();
      await server.stop();
    },
  };
}

function withPool(pool: pg.Pool): Pick<OpenDatabase, 'queries' | 'pool'> {
  return { pool, queries: drizzle({ client: pool, casing }) };
}
