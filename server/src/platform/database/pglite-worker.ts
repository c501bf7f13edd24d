import { renameSync, rmSync, writeFileSync, readFileSync, existsSync, readdirSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import { PGlite } from '@electric-sql/pglite';
import { PGLiteSocketServer } from '@electric-sql/pglite-socket';

/** What the worker is started with. */
export interface PgliteWorkerData {
  readonly dataFolder: string;
  readonly socketPath: string;
  /** A dumped, empty database cluster: loading it takes a fraction of the time of making one. */
  readonly seedFile: string | null;
  readonly copyFolder: string | null;
  readonly copyEveryMs: number;
}

/** Copies kept beside the data folder. */
const copiesKept = 3;

const { dataFolder, socketPath, seedFile, copyFolder, copyEveryMs } = workerData as PgliteWorkerData;
const isNew = !existsSync(join(dataFolder, 'PG_VERSION'));
const seed = isNew && seedFile && existsSync(seedFile) ? new Blob([readFileSync(seedFile)]) : undefined;
const database = await PGlite.create({ dataDir: dataFolder, ...(seed ? { loadDataDir: seed } : {}) });
await database.exec(`SET work_mem = '64MB'`);
const server = new PGLiteSocketServer({ db: database, path: socketPath, maxConnections: 4 });
await server.start();

let copyOf = await writtenBytes();
const copies = copyFolder ? setInterval(() => void copyWhenChanged(copyFolder), copyEveryMs) : undefined;

parentPort!.on('message', (message: { dumpTo?: string }) => {
  if (message.dumpTo) void dump(message.dumpTo).then(() => parentPort!.postMessage('dumped'));
  else void stop();
});
parentPort!.postMessage('listening');

/** Writes the whole cluster as one file; it appears under its name only once it is complete. */
async function dump(file: string): Promise<void> {
  await database.exec('CHECKPOINT');
  const contents = await database.dumpDataDir('gzip');
  writeFileSync(`${file}.part`, Buffer.from(await contents.arrayBuffer()), { flush: true });
  renameSync(`${file}.part`, file);
}

/**
 * PGlite writes through Node's file system without fsync, which its start parameters cannot change: a process that is
 * killed loses nothing, a power cut may damage the folder. So a copy that has reached the disk is kept at fixed times.
 */
async function copyWhenChanged(folder: string): Promise<void> {
  const written = await writtenBytes();
  if (written === copyOf) return;
  mkdirSync(folder, { recursive: true });
  await dump(join(folder, `wombat-${new Date().toISOString().replace(/[:.]/g, '-')}.tar.gz`));
  copyOf = await writtenBytes();
  const old = readdirSync(folder)
    .filter((name) => name.endsWith('.tar.gz'))
    .toSorted()
    .slice(0, -copiesKept);
  for (const name of old) rmSync(join(folder, name));
}

async function writtenBytes(): Promise<string> {
  const { rows } = await database.query<{ at: string }>('SELECT pg_current_wal_insert_lsn()::text AS at');
  return rows[0]!.at;
}

async function stop(): Promise<void> {
  clearInterval(copies);
  await server.stop();
  await database.close();
  parentPort!.postMessage('stopped');
  parentPort!.close();
}
