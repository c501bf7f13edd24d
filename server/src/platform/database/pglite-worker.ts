import { existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import { PGlite } from '@electric-sql/pglite';
import { PGLiteSocketServer } from '@electric-sql/pglite-socket';
import { extract } from 'tar';
import { GatheringPglite } from './gathering-pglite.js';
import type { Engine } from './pglite-engine.js';
import { planOnce } from './preparing-client.js';
import { SyncedNodeFS } from './synced-node-fs.js';
import { syncPath, syncTree } from './sync-tree.js';

/** What the worker is started with. */
export interface PgliteWorkerData {
  readonly dataFolder: string;
  readonly socketPath: string;
  /** A dumped, empty database cluster: loading it takes a fraction of the time of making one. */
  readonly seedFile: string | null;
  readonly engine: Engine;
}

/** What it is asked for while it runs; with nothing, to stop. It answers each wish with one message. */
export interface PgliteWish {
  readonly dumpTo?: string;
  readonly copyIn?: { readonly statement: string; readonly bytes: Uint8Array<ArrayBuffer> };
}

const { dataFolder, socketPath, seedFile, engine } = workerData as PgliteWorkerData;
/**
 * What PostgreSQL acknowledges is on the disk, the log of it with `fsync`, as the cheaper calls are missing here. Pages that it
 * keeps in memory: its usual 128 MB are a fifth of what the largest file may take altogether.
 */
const settings = ['fsync=on', 'wal_sync_method=fsync', 'shared_buffers=48MB', planOnce];
const startParams = [
  ...PGlite.defaultStartParams.filter((param) => param !== '-F'),
  ...settings.flatMap((setting) => ['-c', setting]),
];
if (seedFile && existsSync(seedFile) && !existsSync(join(dataFolder, 'PG_VERSION'))) await unpackSeed(seedFile);
const database = new GatheringPglite({ fs: new SyncedNodeFS(dataFolder), startParams, pgliteWasmModule: engine });
await database.waitReady;
await database.exec(`SET work_mem = '64MB'`);
const server = new PGLiteSocketServer({ db: database, path: socketPath, maxConnections: 4 });
await server.start();

// From here on nothing queries the database but through the socket, whose messages may be half way through a query; and
// COPY, which the socket does not take: whoever asks for it holds the only client, and waits.
parentPort!.on('message', (wish: PgliteWish) => {
  if (wish.copyIn) void copyIn(wish.copyIn).then((answer) => parentPort!.postMessage(answer));
  else if (wish.dumpTo) void dump(wish.dumpTo).then(() => parentPort!.postMessage('dumped'));
  else void stop();
});
parentPort!.postMessage('listening');

/** Beside the folder first, so that a start that is cut short leaves nothing half made. */
async function unpackSeed(file: string): Promise<void> {
  const unpacked = `${dataFolder}.new`;
  rmSync(unpacked, { recursive: true, force: true });
  mkdirSync(unpacked, { recursive: true });
  await extractOrThrow(file, unpacked);
  syncTree(unpacked);
  renameSync(unpacked, dataFolder);
  syncPath(dirname(dataFolder));
}

/** A file that the disk has no room for is otherwise left out without a word. */
async function extractOrThrow(file: string, into: string): Promise<void> {
  const faults: unknown[] = [];
  const onwarn = (code: string, message: string | Error) => {
    if (code !== 'TAR_ENTRY_INFO') faults.push(message instanceof Error ? message : new Error(message));
  };
  await extract({ file, cwd: into, onwarn });
  if (faults.length > 0) throw faults[0];
}

/** That it is copied, or what was wrong. */
async function copyIn({ statement, bytes }: NonNullable<PgliteWish['copyIn']>): Promise<string> {
  try {
    await database.query(`${statement} '/dev/blob'`, [], { blob: new Blob([bytes]) });
    return 'copied';
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/**
 * Writes the files of the cluster as one; they are read between two messages, so that they are what a killed process
 * would leave, which the log of the database makes whole. The file appears under its name once it is complete.
 */
async function dump(file: string): Promise<void> {
  const contents = await database.dumpDataDir('gzip');
  writeFileSync(`${file}.part`, Buffer.from(await contents.arrayBuffer()), { flush: true });
  renameSync(`${file}.part`, file);
}

async function stop(): Promise<void> {
  await server.stop();
  await database.close();
  parentPort!.postMessage('stopped');
  parentPort!.close();
}
