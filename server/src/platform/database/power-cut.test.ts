import { createHash } from 'node:crypto';
import { readFileSync, rmSync } from 'node:fs';
import { setTimeout } from 'node:timers/promises';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { findChainFault, type ChainedEntry } from '#core/changes';
import type { FileImportReply } from '#contract/files';
import { copyOfPreparedDistrict } from '../../../test/prepared-district.js';
import { startMirrored, type MirroredServer } from '../../../test/power-cut.js';
import { changeOf, sheetNamed } from '../../../test/sheets.js';
import { signIn, type TestClient } from '../../../test/test-server.js';
import { openDatabase, type OpenDatabase } from './open-database.js';

/*
 * The power goes at twenty moments of saving and importing: what is opened again is a folder with nothing in it but what the
 * server had asked the disk to keep until then. Only the embedded database needs it; a server of PostgreSQL keeps its own.
 */

const moments = 20;
const file = readFileSync(new URL('../../../../demo/files/tidal-ecology-1.csv', import.meta.url));

let folder: string;
let server: MirroredServer;
let registrar: TestClient;
beforeAll(async () => {
  folder = await copyOfPreparedDistrict();
  server = await startMirrored(folder);
  registrar = await signIn(server.address, 'morwenna');
});
afterAll(() => {
  server?.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** The number of the last save whose answer came, and how many files are accepted. */
const acknowledged = { save: 0, accepted: 0 };
const work = { isOver: false };

async function keepSaving(): Promise<void> {
  const { path, sheet } = await sheetNamed(registrar, 'Shore Life 3');
  const [first] = sheet.rows;
  for (let save = 1; !work.isOver; save += 1) {
    const row = { ...first!, version: first!.version + save - 1 };
    const changes = [changeOf(row, { comment: `save ${save}` })];
    expect((await registrar.send('PUT', path, { changes })).status).toBe(200);
    acknowledged.save = save;
  }
}

async function keepImporting(): Promise<void> {
  while (!work.isOver) {
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(file)]), 'tidal.csv');
    const { body } = await registrar.send<FileImportReply>('POST', '/file-imports?period=4', form);
    await registrar.send('POST', `/file-imports/${body.id}/accept`, { planNumber: body.plan!.number });
    acknowledged.accepted += 1;
    await setTimeout(50);
    await registrar.send('POST', `/file-imports/${body.id}/undo`);
  }
}

async function lookInto(image: string) {
  const database = await openDatabase({ kind: 'folder', folder: image, seedFile: null });
  try {
    const { rows } = await database.pool.query<{
      save: number | null;
      accepted: number;
      head: string;
      entries: number;
    }>(`
      SELECT (SELECT max(substring(comment FROM 'save (\\d+)')::int) FROM grades) AS save,
        (SELECT count(*)::int FROM file_imports WHERE file_name = 'tidal.csv' AND status IN ('accepted', 'undoing', 'undone')) AS accepted,
        (SELECT hash FROM log_head) AS head, (SELECT entries FROM log_head) AS entries`);
    return { ...rows[0]!, chain: await chainOf(database) };
  } finally {
    await database.close();
    rmSync(image, { recursive: true, force: true });
  }
}

/** How far the log holds together, and what its last entry is. */
async function chainOf({ pool }: OpenDatabase) {
  const { rows } = await pool.query<Omit<ChainedEntry, 'at'> & { at: Date }>(`
    SELECT id, at, actor, action, thing, before, after, previous_hash AS "previousHash", hash,
      CASE WHEN change_id IS NOT NULL THEN json_build_object('id', change_id, 'undoes', undoes, 'why', why) END AS change
    FROM change_log ORDER BY id`);
  const fault = findChainFault(
    rows.map((row) => ({ ...row, at: row.at.toISOString() })),
    (text) => createHash('sha256').update(text).digest('hex'),
  );
  return { entries: rows.length, fault, hash: rows.at(-1)!.hash };
}

it('keeps what was acknowledged', async () => {
  const working = [keepSaving(), keepImporting()];
  const images: { folder: string; save: number; accepted: number }[] = [];
  for (let moment = 0; moment < moments; moment += 1) {
    await setTimeout(150 + ((moment * 167) % 400));
    images.push({ ...acknowledged, folder: server.imageNow() });
  }
  work.isOver = true;
  await Promise.all(working);
  expect(acknowledged.save).toBeGreaterThan(moments / 2);
  expect(acknowledged.accepted).toBeGreaterThan(0);
  for (const image of images) {
    const kept = await lookInto(image.folder);
    expect([kept.save ?? 0, kept.accepted]).toEqual([
      expect.toSatisfy((save: number) => save >= image.save),
      expect.toSatisfy((accepted: number) => accepted >= image.accepted),
    ]);
    expect(kept.chain).toEqual({ entries: kept.entries, fault: undefined, hash: kept.head });
  }
});
