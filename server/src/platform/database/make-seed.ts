import { existsSync, mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { PGlite } from '@electric-sql/pglite';

/**
 * Makes the dumped, empty cluster that new data folders start from, unless it is there. Making one takes PGlite 5 to 13
 * seconds, loading it a second or two. It is made where it is used, as it must fit the installed version of PGlite.
 */
export async function makeSeed(file: string): Promise<void> {
  if (existsSync(file)) return;
  mkdirSync(dirname(file), { recursive: true });
  const database = await PGlite.create();
  const dumped = await database.dumpDataDir('gzip');
  await database.close();
  writeFileSync(`${file}.part`, Buffer.from(await dumped.arrayBuffer()));
  renameSync(`${file}.part`, file);
}
