import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { prepareDemo } from '#demo';
import { createApplicationContext, seedFile } from '#server/application';
import { makeSeed, openDatabase } from '#server/platform';

/**
 * Does a work on the application over the demo district, in a data folder of its own that goes afterwards.
 * @param prepare what the database gets before the application begins
 */
export async function onDemo(work, prepare = async () => {}) {
  const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
  await makeSeed(seedFile);
  const database = await openDatabase({ kind: 'folder', folder, seedFile });
  try {
    await prepareDemo(database);
    await prepare(database);
    const { context } = await createApplicationContext(database);
    const result = await work(context, database);
    await context.close();
    return result;
  } finally {
    await database.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
