import { readFileSync, readlinkSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const fileOf = (folder: string) => join(folder, 'wombat.pid');

/** Writes down who holds a data folder: the number of its process, and by what it is told from a later one of that number. */
export function writeHolder(folder: string): void {
  writeFileSync(fileOf(folder), `${process.pid}\n${lifeOf(process.pid) ?? ''}\n`);
}

export function removeHolder(folder: string): void {
  rmSync(fileOf(folder), { force: true });
}

/** The number of the process that holds a data folder, or last held it. */
export function holderOf(folder: string): string {
  return textOf(fileOf(folder))?.split('\n')[0] ?? 'unknown';
}

/**
 * Whether this process may take the folder from one that is surely gone: one of this machine and container that runs no
 * more. Of several that ask at once, one may. Where it is not sure, as on another machine, nobody may.
 */
export function claimFromGone(folder: string): boolean {
  const told = textOf(fileOf(folder));
  if (told === undefined || !isGone(told)) return false;
  const claimed = `${fileOf(folder)}.${process.pid}`;
  try {
    renameSync(fileOf(folder), claimed);
  } catch {
    return false; // somebody else claimed it
  }
  const isMine = textOf(claimed) === told;
  if (isMine) rmSync(claimed);
  else renameSync(claimed, fileOf(folder)); // of one that has taken the folder since it was read
  return isMine;
}

function isGone(told: string): boolean {
  const [pid, life] = told.split('\n');
  const own = lifeOf(process.pid);
  if (!life || !own || placeOf(life) !== placeOf(own)) return false;
  return lifeOf(Number(pid)) !== life;
}

/**
 * What tells a process from all others of one machine, in one container and since it was switched on: those, and when it
 * began. Undefined for one that does not run, and where the system tells nothing of it.
 */
function lifeOf(pid: number): string | undefined {
  try {
    const boot = readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim();
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const began = stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19]; // field 22, proc(5)
    return `${boot} ${readlinkSync('/proc/self/ns/pid')} ${began}`;
  } catch {
    return undefined;
  }
}

const placeOf = (life: string) => life.slice(0, life.lastIndexOf(' '));

function textOf(path: string): string | undefined {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    return undefined;
  }
}
