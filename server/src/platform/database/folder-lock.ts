import { once } from 'node:events';
import { chmodSync, mkdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { workerFile } from '../work/worker-file.js';
import type { FolderLockWish } from './folder-lock-worker.js';
import { holderOf, removeHolder, writeHolder } from './lock-holder.js';

/** A second server on the same folder would lose rows silently, so it must not start. */
export class FolderInUseError extends Error {
  constructor(
    readonly folder: string,
    readonly pid: string,
  ) {
    super(
      `The data folder ${folder} is in use by another Wombat (process ${pid}). ` +
        `Stop that one first, or choose another folder with WOMBAT_DATA.`,
    );
    this.name = 'FolderInUseError';
  }
}

/**
 * Takes the data folder for this process and returns what gives it back. The lock is kept by a thread of its own, which
 * goes on touching it however busy the others are. Should another process take it all the same, this one stops.
 * @throws FolderInUseError when a living process holds it
 */
export async function lockFolderOrThrow(folder: string): Promise<() => Promise<void>> {
  mkdirSync(folder, { recursive: true });
  closeToOthers(folder);
  const workerData: FolderLockWish = { folder, lockPath: join(folder, 'in-use') };
  const keeper = new Worker(workerFile(new URL('./folder-lock-worker.js', import.meta.url)), {
    workerData,
    execArgv: [],
  });
  const [answer] = (await once(keeper, 'message')) as ['taken' | 'in use'];
  if (answer === 'in use') throw new FolderInUseError(folder, holderOf(folder));
  keeper.on('error', (error) => {
    throw error;
  });
  writeHolder(folder);
  return async () => {
    removeHolder(folder);
    keeper.postMessage('release');
    await once(keeper, 'exit');
  };
}

/** What students and staff are known by is for nobody else on the machine, neither the database nor its copies. */
function closeToOthers(folder: string): void {
  if (statSync(folder).uid === process.getuid?.()) chmodSync(folder, 0o700);
}
