import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** A second server on the same folder would lose rows silently, so it must not start. */
export class FolderInUseError extends Error {
  constructor(
    readonly folder: string,
    readonly pid: number,
  ) {
    super(
      `The data folder ${folder} is in use by another Wombat (process ${pid}). ` +
        `Stop that one first, or choose another folder with WOMBAT_DATA.`,
    );
    this.name = 'FolderInUseError';
  }
}

/**
 * Takes the data folder for this process and returns what gives it back. A lock left behind by a process that is gone
 * is taken over.
 * @throws FolderInUseError when a living process holds it
 */
export function lockFolderOrThrow(folder: string): () => void {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, 'wombat.lock');
  for (let attempt = 0; ; attempt++) {
    try {
      writeFileSync(file, String(process.pid), { flag: 'wx' });
      return () => rmSync(file, { force: true });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST' || attempt > 3) throw error;
      const holder = holderOf(file);
      if (holder !== undefined && isAlive(holder)) throw new FolderInUseError(folder, holder);
      rmSync(file, { force: true });
    }
  }
}

function holderOf(file: string): number | undefined {
  try {
    const pid = Number(readFileSync(file, 'utf8'));
    return Number.isInteger(pid) && pid > 0 ? pid : undefined;
  } catch {
    return undefined; // given back between the two looks
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
