import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { spawnDemo } from './spawn-demo.js';

const hook = new URL('power-cut-mirror.mjs', import.meta.url).href;

/** A server of which it is known what reached the disk. */
export interface MirroredServer {
  readonly address: string;
  /** A data folder as it would be after a power cut at this moment; the server stands still while it is made. */
  imageNow(): string;
  stop(): void;
}

/** Starts a server on a data folder that is on the disk as a whole. */
export async function startMirrored(folder: string): Promise<MirroredServer> {
  const mirror = mkdtempSync(join(tmpdir(), 'wombat-mirror-'));
  noteAsSynced(join(folder, 'database'), mirror);
  const { address, child } = await spawnDemo({
    PORT: '0',
    WOMBAT_DATA: folder,
    DATABASE_URL: '',
    NODE_OPTIONS: `--import ${hook}`,
    WOMBAT_POWER_CUT_MIRROR: mirror,
  });
  return {
    address,
    imageNow() {
      child.kill('SIGSTOP');
      const image = mkdtempSync(join(tmpdir(), 'wombat-image-'));
      build(statSync(join(folder, 'database')).ino, join(image, 'database'), mirror);
      child.kill('SIGCONT');
      return image;
    },
    stop() {
      child.kill('SIGKILL');
      rmSync(mirror, { recursive: true, force: true });
    },
  };
}

type Name = readonly [name: string, inode: string, isFolder: boolean];

function noteAsSynced(folder: string, mirror: string): void {
  const names = readdirSync(folder, { withFileTypes: true }).map((entry): Name => {
    const path = join(folder, entry.name);
    const inode = String(statSync(path).ino);
    if (entry.isDirectory()) noteAsSynced(path, mirror);
    else cpSync(path, join(mirror, `file-${inode}`));
    return [entry.name, inode, entry.isDirectory()];
  });
  writeFileSync(join(mirror, `names-${statSync(folder).ino}`), JSON.stringify(names));
}

/** A folder whose names were never synced is empty, as is a file that was never synced. */
function build(inode: number | string, target: string, mirror: string): void {
  mkdirSync(target);
  const list = join(mirror, `names-${inode}`);
  if (!existsSync(list)) return;
  for (const [name, own, isFolder] of JSON.parse(readFileSync(list, 'utf8')) as Name[]) {
    const kept = join(mirror, `file-${own}`);
    if (isFolder) build(own, join(target, name), mirror);
    else if (existsSync(kept)) cpSync(kept, join(target, name));
    else writeFileSync(join(target, name), '');
  }
}
