import { once } from 'node:events';
import { rmSync, statSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import { parentPort, workerData } from 'node:worker_threads';
import { lock } from 'proper-lockfile';
import { claimFromGone } from './lock-holder.js';

/** The folder and the lock in it, as the thread that keeps the lock is told them. */
export interface FolderLockWish {
  readonly folder: string;
  readonly lockPath: string;
}

/** A lock that was not touched for so long was left behind. Its holder touches it every second. */
const staleMilliseconds = 10_000;
const touchMilliseconds = 1_000;

const { folder, lockPath } = workerData as FolderLockWish;

/**
 * Whether a holder lives is seen by the lock that it touches, not by its process number alone: a container that is started
 * again bears the same one. One that was left behind is taken over, at once where its holder is surely gone, otherwise after
 * a while without a touch. Undefined while its holder lives.
 */
async function take(): Promise<(() => Promise<void>) | undefined> {
  const firstTouch = touchOf(lockPath);
  for (;;) {
    try {
      return await lock(folder, {
        lockfilePath: lockPath,
        stale: staleMilliseconds,
        update: touchMilliseconds,
        onCompromised: () => {
          throw new Error(`Another process took the data folder ${folder}; this one stops, so that nothing is lost.`);
        },
      });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ELOCKED') throw error;
      if (claimFromGone(folder)) rmSync(lockPath, { recursive: true, force: true });
      else if (touchOf(lockPath) !== firstTouch) return undefined;
      await sleep(touchMilliseconds / 4);
    }
  }
}

function touchOf(path: string): number | undefined {
  return statSync(path, { throwIfNoEntry: false })?.mtimeMs;
}

const release = await take();
parentPort!.postMessage(release ? 'taken' : 'in use');
if (release) {
  await once(parentPort!, 'message');
  await release();
  parentPort!.postMessage('released');
}
parentPort!.close();
