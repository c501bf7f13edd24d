import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, dirname, join } from 'node:path';
import { openDatabase } from './open-database.js';

/**
 * Makes the dumped cluster, with its tables and no rows, that new data folders start from, unless it is there. Making one
 * takes PGlite 5 to 13 seconds, unpacking it one. It is made where it is used, as it must fit the installed version of PGlite; its
 * name ends with a mark of the tables, and one with another mark goes.
 */
export async function makeSeed(file: string): Promise<void> {
  if (existsSync(file)) return;
  mkdirSync(dirname(file), { recursive: true });
  const [kind] = basename(file).split(/-(?=[^-]*$)/);
  for (const old of readdirSync(dirname(file)))
    if (old.startsWith(kind!) && old.endsWith('.tar.gz')) rmSync(join(dirname(file), old), { force: true });
  const folder = mkdtempSync(join(tmpdir(), 'wombat-seed-'));
  const database = await openDatabase({ kind: 'folder', folder, seedFile: null });
  try {
    await database.pool.query('CHECKPOINT'); // so that nothing is left to be worked through at each first start
    await database.dump!(file);
  } finally {
    await database.close();
    rmSync(folder, { recursive: true });
  }
}
