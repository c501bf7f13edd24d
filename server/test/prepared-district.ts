import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { prepareDemo } from '#demo';
import { seedFile } from '#server/application';
import { makeSeed, openDatabase } from '#server/platform';

const root = fileURLToPath(new URL('../../', import.meta.url));
const cache = join(root, 'node_modules/.cache/wombat');
/** What the district comes from: where any of it changes, it is made anew. */
const origins = ['core/dist', 'contract/dist', 'server/dist', 'demo/dist', 'server/drizzle'];

/** A data folder of one's own with the demo district, which is made once for server tests and journeys alike. */
export async function copyOfPreparedDistrict(): Promise<string> {
  const kept = await preparedDistrict();
  const folder = mkdtempSync(join(tmpdir(), 'wombat-district-'));
  cpSync(join(kept, 'database'), join(folder, 'database'), { recursive: true });
  return folder;
}

async function preparedDistrict(): Promise<string> {
  const kept = join(cache, `district-${hashOfOrigins()}`);
  if (existsSync(kept)) return kept;
  mkdirSync(cache, { recursive: true });
  for (const old of readdirSync(cache).filter((name) => name.startsWith('district-')))
    rmSync(join(cache, old), { recursive: true, force: true });
  const folder = mkdtempSync(join(cache, 'making-'));
  await makeSeed(seedFile);
  const database = await openDatabase({ kind: 'folder', folder, seedFile });
  await prepareDemo(database);
  await database.close();
  renameSync(folder, kept); // so that nothing half made is ever kept
  return kept;
}

function hashOfOrigins(): string {
  const hash = createHash('sha256');
  for (const origin of origins)
    for (const name of readdirSync(join(root, origin), { recursive: true, encoding: 'utf8' }).toSorted())
      if (/\.(js|sql|json)$/.test(name)) hash.update(name).update(readFileSync(join(root, origin, name)));
  return hash.digest('hex').slice(0, 16);
}
