import { mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { lock } from 'proper-lockfile';

/** A lock that was not touched for so long was left behind. Its holder touches it every second. */
const staleMilliseconds = 10_000;
const touchMilliseconds = 1_000;

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
 * Takes the data folder for this process and returns what gives it back. Whether a holder lives is seen by the lock that
 * it touches, not by its process number: a container that is started again bears the same one. A lock that a killed
 * process left behind is waited for and taken over.
 * @throws FolderInUseError when its holder goes on touching the lock
 */
export async function lockFolderOrThrow(folder: string): Promise<() => Promise<void>> {
  mkdirSync(folder, { recursive: true });
  const lockfilePath = join(folder, 'in-use');
  const holder = join(folder, 'wombat.pid');
  const firstTouch = touchOf(lockfilePath);
  for (;;) {
    try {
      const release = await lock(folder, {
        lockfilePath,
        stale: staleMilliseconds,
        update: touchMilliseconds,
        onCompromised: () => {
          throw new Error(
            `The data folder ${folder} was taken by another process; this one stops, so that nothing is lost.`,
          );
        },
      });
      writeFileSync(holder, String(process.pid));
      return async () => {
        rmSync(holder, { force: true });
        await release();
      };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ELOCKED') throw error;
      if (touchOf(lockfilePath) !== firstTouch) throw new FolderInUseError(folder, readFileSync(holder, 'utf8'));
      await sleep(touchMilliseconds / 4);
    }
  }
}

function touchOf(path: string): number | undefined {
  return statSync(path, { throwIfNoEntry: false })?.mtimeMs;
}
