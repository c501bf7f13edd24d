import { createHash } from 'node:crypto';
import { readFileSync, rmSync } from 'node:fs';
import { setTimeout } from 'node:timers/promises';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { findChainFault, type ChainedEntry } from '#core/changes';
import type { FileImportReply } from '#contract/files';
import type { ReadinessReply } from '#contract/transcripts';
import { auditNow } from '../../../test/audit-now.js';
import { copyOfPreparedDistrict } from '../../../test/prepared-district.js';
import { startMirrored, type MirroredServer } from '../../../test/power-cut.js';
import { certify, settlePeriod } from '../../../test/settle-period.js';
import { changeOf, openPeriod, sheetNamed } from '../../../test/sheets.js';
import { signIn, type TestClient } from '../../../test/test-server.js';
import { openDatabase, type OpenDatabase } from './open-database.js';

/*
 * The power goes at twenty moments of saving, importing and sealing: what is opened again is a folder with nothing in it but
 * what the server had asked the disk to keep until then. Only the embedded database needs it; a server of PostgreSQL keeps
 * its own.
 */

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

/** What was answered: the number of the last save, how many files are accepted, how many grades are sealed. */
interface Acknowledged {
  readonly save: number;
  readonly accepted: number;
  readonly sealed: number;
}
let acknowledged: Acknowledged = { save: 0, accepted: 0, sealed: 0 };
const work = { isOver: false };
/** A limit against hanging. */
const patient = { timeout: 60_000, interval: 20 };

async function keepSaving(): Promise<void> {
  const { path, sheet } = await sheetNamed(registrar, 'Shore Life 3');
  if (sheet.signedOff) await registrar.send('DELETE', `${path}/sign-off`);
  const [first] = sheet.rows;
  for (let save = 1; !work.isOver; save += 1) {
    const row = { ...first!, version: first!.version + save - 1 };
    const changes = [changeOf(row, { comment: `save ${save}` })];
    expect((await registrar.send('PUT', path, { changes })).status).toBe(200);
    acknowledged = { ...acknowledged, save };
  }
}

async function keepImporting(): Promise<void> {
  for (let accepted = 1; !work.isOver; accepted += 1) {
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(file)]), 'tidal.csv');
    const { body } = await registrar.send<FileImportReply>('POST', '/file-imports?period=4', form);
    const planNumber = body.plan!.number;
    const answer = await registrar.send<FileImportReply>('POST', `/file-imports/${body.id}/accept`, { planNumber });
    expect([answer.status, answer.body.status]).toEqual([200, 'accepted']);
    acknowledged = { ...acknowledged, accepted };
    expect((await registrar.send('POST', `/file-imports/${body.id}/undo`)).status).toBe(200);
  }
}

async function seal(): Promise<void> {
  await certify(registrar);
  const { status, body } = await registrar.send<ReadinessReply>('POST', '/seals', { periodId: openPeriod });
  expect(status).toBe(200);
  acknowledged = { ...acknowledged, sealed: body.seal!.entries };
}

type Image = Acknowledged & { readonly folder: string };

const imageNow = (): Image => ({ ...acknowledged, folder: server.imageNow() });

/** An image some milliseconds after a grade was saved that no image before has, and at the end after a file was accepted. */
async function cutPowerAmongWrites(moments: number): Promise<Image[]> {
  const images: Image[] = [];
  for (let moment = 1; moment <= moments; moment += 1) {
    const least = { save: (images.at(-1)?.save ?? 0) + 1, accepted: moment === moments ? 1 : 0 };
    await vi.waitUntil(() => acknowledged.save >= least.save && acknowledged.accepted >= least.accepted, patient);
    await setTimeout(Math.random() * 900);
    images.push(imageNow());
  }
  return images;
}

async function cutPowerWhileSealing(moments: number): Promise<Image[]> {
  const images: Image[] = [];
  for (let moment = 1; moment <= moments; moment += 1) {
    await setTimeout(Math.random() * 300);
    images.push(imageNow());
  }
  return images;
}

async function lookInto(image: string) {
  const database = await openDatabase({ kind: 'folder', folder: image, seedFile: null });
  try {
    const { rows } = await database.pool.query<Acknowledged & { head: string; entries: number }>(`
      SELECT (SELECT coalesce(max(substring(comment FROM 'save (\\d+)')::int), 0) FROM grades) AS save,
        (SELECT count(*)::int FROM file_imports WHERE file_name = 'tidal.csv' AND status IN ('accepted', 'undoing', 'undone')) AS accepted,
        (SELECT count(*)::int FROM transcript_entries e JOIN seals s ON s.id = e.seal_id WHERE s.period_id = ${openPeriod}) AS sealed,
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
    SELECT id, at, actor_id AS "actorId", actor, action, thing, before, after, previous_hash AS "previousHash", hash,
      CASE WHEN change_id IS NOT NULL THEN json_build_object('id', change_id, 'undoes', undoes, 'why', why) END AS change
    FROM change_log ORDER BY id`);
  const fault = findChainFault(
    rows.map((row) => ({ ...row, at: row.at.toISOString() })),
    (text) => createHash('sha256').update(text).digest('hex'),
  );
  return { entries: rows.length, fault, hash: rows.at(-1)!.hash };
}

it('keeps what was acknowledged, whole', async () => {
  const working = Promise.all([keepSaving(), keepImporting()]);
  const images = await cutPowerAmongWrites(14);
  work.isOver = true;
  await working;
  await settlePeriod(registrar);
  await auditNow(registrar, openPeriod);
  const sealing = seal();
  images.push(...(await cutPowerWhileSealing(5)));
  await sealing;
  images.push(imageNow());
  const { sealed } = acknowledged;
  expect(sealed).toBeGreaterThan(1000);
  for (const image of images) {
    const kept = await lookInto(image.folder);
    expect(kept.save).toBeGreaterThanOrEqual(image.save);
    expect(kept.accepted).toBeGreaterThanOrEqual(image.accepted);
    expect([0, sealed]).toContain(kept.sealed); // all or nothing
    expect(kept.sealed).toBeGreaterThanOrEqual(image.sealed);
    expect(kept.chain).toEqual({ entries: kept.entries, fault: undefined, hash: kept.head });
  }
});
