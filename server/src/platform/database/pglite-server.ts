import { once } from 'node:events';
import { mkdtempSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { workerFile } from '../work/worker-file.js';
import { lockFolderOrThrow } from './folder-lock.js';
import { compiledEngine } from './pglite-engine.js';
import type { PgliteWish, PgliteWorkerData } from './pglite-worker.js';

/** A PGlite database on a folder, served over a Unix socket from a thread of its own. */
export interface PgliteServer {
  /** What `pg` connects to: the folder of the socket. */
  readonly socketFolder: string;
  /** Writes the rows of a text through a statement (`COPY … FROM`); nothing else may be asked meanwhile. */
  copyIn(statement: string, bytes: Buffer): Promise<void>;
  /** Writes the whole database to one file. */
  dump(file: string): Promise<void>;
  stop(): Promise<void>;
}

/**
 * Starts PGlite in a worker thread: on the main thread every query would hold up HTTP for as long as it runs.
 * @throws FolderInUseError when another process holds the folder
 */
export async function startPgliteServer(folder: string, seedFile: string | null): Promise<PgliteServer> {
  const compiling = compiledEngine(); // while the lock is taken
  const unlock = await lockFolderOrThrow(folder);
  const socketFolder = mkdtempSync(join(tmpdir(), 'wombat-'));
  const release = async () => {
    await unlock();
    rmSync(socketFolder, { recursive: true, force: true });
  };
  const workerData: PgliteWorkerData = {
    dataFolder: join(folder, 'database'),
    socketPath: join(socketFolder, '.s.PGSQL.5432'),
    seedFile,
    engine: await compiling,
  };
  const worker = new Worker(workerFile(new URL('./pglite-worker.js', import.meta.url)), { workerData, execArgv: [] });
  try {
    await answer(worker); // that it listens
  } catch (error) {
    await release();
    throw isFull(folder)
      ? Object.assign(new Error('the disk is full', { cause: error }), { code: 'ENOSPC', path: folder })
      : error;
  }
  worker.on('error', (error) => {
    void release();
    throw error; // without its database the server has nothing left to do
  });
  // One wish at a time, so that an answer is the answer to it.
  let turn: Promise<unknown> = Promise.resolve();
  const ask = (wish: PgliteWish, transfer: ArrayBuffer[] = []): Promise<unknown> => {
    const answered = turn.then(() => {
      worker.postMessage(wish, transfer);
      return answer(worker);
    });
    turn = answered.catch(() => undefined);
    return answered;
  };
  return {
    socketFolder,
    async copyIn(statement, bytes) {
      const own = new Uint8Array(bytes);
      const refused = await ask({ copyIn: { statement, bytes: own } }, [own.buffer]);
      if (refused !== 'copied') throw new Error(String(refused));
    },
    async dump(file) {
      await ask({ dumpTo: file });
    },
    async stop() {
      await ask({});
      await worker.terminate();
      await release();
    },
  };
}

/** PGlite does not say why it cannot begin; with less room than a segment of its log takes it cannot. */
function isFull(folder: string): boolean {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize < 16 * 1024 * 1024;
}

async function answer(worker: Worker): Promise<unknown> {
  const [message] = (await once(worker, 'message')) as [unknown];
  return message;
}
