// An export of two million rows and a hundred megabytes, taken in by a Wombat of its own on an embedded database: how much
// memory it takes at most, and its steps against the least that any program must do with the same bytes and rows.
import { spawn } from 'node:child_process';
import { mkdtempSync, openAsBlob, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { copyLine } from '#core/formats';
import { Bulk, openDatabase, readRows } from '#server/platform';
import { serverFlags } from '../scripts/steps.mjs';
import { enlarge, rowCount, writeExport } from './support/large-district.mjs';
import { median } from './support/median.mjs';

const program = fileURLToPath(new URL('../demo/dist/start-demo.js', import.meta.url));
const period = 4;
const form = { encoding: 'utf8', delimiter: ',', lineEnd: '\n' };
const megabyte = 1024 * 1024;

let taken;
/** All is taken in once, and measured from several sides. */
const takeIn = () => (taken ??= measureImport());

export const measurements = [
  {
    what: 'most memory of the whole server while it takes in 2,000,000 rows',
    against: 'the limit of 600 MB',
    limit: 1,
    unit: 'MB',
    measure: async () => ({ ours: (await takeIn()).peakMegabytes, peer: 600 }),
  },
  {
    what: 'parsing 2,000,000 rows of an export',
    against: 'reading its bytes from where they are kept',
    limit: 6,
    measure: async () => (await takeIn()).parsing,
  },
  {
    what: 'accepting 2,000,000 percents',
    against: 'a COPY of the same rows into the same table',
    limit: 5,
    measure: async () => (await takeIn()).writing,
  },
];

async function measureImport() {
  const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
  const path = join(folder, 'export.csv');
  try {
    await (await start(folder)).stop();
    await enlarge(folder);
    await writeExport(path);
    const wombat = await start(folder);
    const call = await signIn(wombat.address);
    const body = new FormData();
    body.append('file', await openAsBlob(path), 'export.csv');
    const { id } = await call('POST', `/file-imports?period=${period}`, body);
    const planned = await settled(call, id);
    if (planned.plan?.counts.new !== rowCount) throw new Error(`planned: ${JSON.stringify(planned.plan)}`);
    const began = performance.now();
    await call('POST', `/file-imports/${id}/accept`, { planNumber: planned.plan.number });
    const accepted = await settled(call, id);
    if (accepted.status !== 'accepted') throw new Error(`${accepted.status}: ${JSON.stringify(accepted.problem)}`);
    const ours = performance.now() - began;
    const peakMegabytes = wombat.peakMegabytes();
    await wombat.stop();
    return {
      peakMegabytes,
      parsing: await measureParsing(folder, id),
      writing: { ours, peer: await copyAgain(folder) },
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The bytes come from the database, where they wait for being parsed. */
async function measureParsing(folder, id) {
  const { pool, close } = await openDatabase({ kind: 'folder', folder, seedFile: null });
  const bytes = async function* () {
    for (let piece = 0; ; piece++) {
      const { rows } = await pool.query('SELECT bytes FROM file_pieces WHERE import_id = $1 AND piece = $2', [
        id,
        piece,
      ]);
      if (rows.length === 0) return;
      yield rows[0].bytes;
    }
  };
  const reading = await median(3, async () => {
    for await (const piece of bytes()) piece.at(0);
  });
  const both = await median(3, async () => {
    for await (const { rows } of readRows(bytes(), form)) rows.at(0);
  });
  await close();
  return { ours: both - reading, peer: reading };
}

/** Writes a tenth of what was accepted once more, from text; how long all of it would take. */
async function copyAgain(folder) {
  const database = await openDatabase({ kind: 'folder', folder, seedFile: null });
  const { rows } = await database.pool.query(
    'SELECT item_id, import_id FROM computed_grades ORDER BY import_id DESC LIMIT 1',
  );
  const [{ item_id: itemId, import_id: importId }] = rows;
  await database.pool.query('DELETE FROM computed_grades WHERE import_id = $1', [importId]);
  await database.pool.query('VACUUM computed_grades');
  const batch = 5_000;
  const began = performance.now();
  await new Bulk(database).run(async (_queries, write) => {
    for (let n = 0; n < rowCount / 10; n += batch) {
      const lines = Array.from({ length: batch }, (_each, at) =>
        copyLine([itemId, period, 10_000_000 + n + at, ((n + at) % 10_000) / 100, importId, n + at + 2]),
      );
      await write(
        'computed_grades (item_id, period_id, enrollment_id, percent, import_id, import_row)',
        lines.join(''),
      );
    }
  });
  const took = 10 * (performance.now() - began);
  await database.close();
  return took;
}

async function start(folder) {
  const child = spawn(process.execPath, [...serverFlags, program], {
    env: { ...process.env, PORT: '0', WOMBAT_DATA: folder, DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const address = await new Promise((resolve, reject) => {
    let printed = '';
    child.stdout.on('data', (piece) => {
      printed += piece;
      const found = /http:\/\/\S+/.exec(printed)?.[0];
      if (found) resolve(found);
    });
    child.once('exit', () => reject(new Error('Wombat did not start')));
  });
  return {
    address,
    /** The most memory that the process ever held, as the kernel tells it. */
    peakMegabytes: () =>
      (Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))[1]) * 1024) / megabyte,
    stop: () =>
      new Promise((resolve) => {
        child.once('exit', resolve);
        child.kill('SIGTERM');
      }),
  };
}

async function signIn(address) {
  const json = { 'content-type': 'application/json' };
  const credentials = JSON.stringify({ username: 'morwenna', password: 'low-tide' });
  const session = await fetch(`${address}/api/session`, { method: 'POST', headers: json, body: credentials });
  const cookie = session.headers.getSetCookie()[0].split(';')[0];
  const { csrfToken } = await session.json();
  return async (method, path, body) => {
    const isForm = body instanceof FormData;
    const headers = { cookie, 'x-csrf-token': csrfToken, ...(isForm || !body ? {} : json) };
    const sent = isForm ? body : body && JSON.stringify(body);
    const answer = await fetch(`${address}/api${path}`, { method, headers, body: sent });
    if (!answer.ok) throw new Error(`${method} ${path}: ${await answer.text()}`);
    return answer.json();
  };
}

async function settled(call, id) {
  for (;;) {
    const file = await call('GET', `/file-imports/${id}`);
    if (!['reading', 'planning', 'accepting', 'undoing'].includes(file.status)) return file;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
}
