// What the embedded database costs the process around it, and how rows are written.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { seedFile } from '#server/application';
import { makeSeed, openDatabase } from '#server/platform';
import { median } from './support/median.mjs';

const heavy = 'SELECT count(*) FROM generate_series(1, 3000000)';

export const measurements = [
  {
    what: 'longest stall of the main thread during a query of a second, database in a worker',
    against: 'the same query on the main thread',
    limit: 0.2,
    measure: () =>
      onFolder(async ({ pool }) => {
        const ours = await longestStall(() => pool.query(heavy));
        const main = await PGlite.create();
        const peer = await longestStall(() => main.query(heavy));
        await main.close();
        return { ours, peer };
      }),
  },
  {
    what: '5,000 rows in one statement from one JSON parameter',
    against: 'the same rows one by one in a transaction',
    limit: 0.2,
    measure: () =>
      onFolder(async ({ pool }) => {
        await pool.query('CREATE TABLE marks (id int, label text)');
        const rows = Array.from({ length: 5000 }, (_each, id) => ({ id, label: 'B+' }));
        return {
          ours: await median(3, () =>
            pool.query('INSERT INTO marks SELECT * FROM jsonb_populate_recordset(NULL::marks, $1)', [
              JSON.stringify(rows),
            ]),
          ),
          peer: await median(3, async () => {
            await pool.query('BEGIN');
            for (const { id, label } of rows) await pool.query('INSERT INTO marks VALUES ($1, $2)', [id, label]);
            await pool.query('COMMIT');
          }),
        };
      }),
  },
  {
    what: '300 saves one by one, each on the disk before it is acknowledged',
    against: 'the same saves without waiting for the disk',
    limit: 3,
    measure: () =>
      onFolder(async ({ pool }) => {
        await pool.query('CREATE TABLE marks (id int, label text)');
        const saves = async () => {
          for (let id = 0; id < 300; id++) await pool.query('INSERT INTO marks VALUES ($1, $2)', [id, 'B+']);
        };
        await saves(); // so that both are measured warm
        const ours = await median(3, saves);
        await pool.query('SET synchronous_commit = off');
        return { ours, peer: await median(3, saves) };
      }),
  },
  {
    what: 'a new data folder from the dumped cluster',
    against: 'making the cluster anew',
    limit: 0.7,
    measure: async () => ({ ours: await inFreshProcess(seedFile), peer: await inFreshProcess(null) }),
  },
];

async function onFolder(work) {
  const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
  await makeSeed(seedFile);
  const database = await openDatabase({ kind: 'folder', folder, seedFile });
  try {
    return await work(database);
  } finally {
    await database.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function longestStall(work) {
  let [longest, last] = [0, performance.now()];
  const ticking = setInterval(() => {
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
  }, 2);
  await work();
  longest = Math.max(longest, performance.now() - last);
  clearInterval(ticking);
  return longest;
}

/** Each in a process of its own: in one process the second would find the program compiled already. */
async function inFreshProcess(seed) {
  await makeSeed(seedFile);
  const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
  const script = `import('#server/platform').then(async ({ openDatabase }) => {
    const began = performance.now();
    const database = await openDatabase({ kind: 'folder', folder: ${JSON.stringify(folder)}, seedFile: ${JSON.stringify(seed)} });
    console.log(performance.now() - began);
    await database.close();
  })`;
  const printed = execFileSync(process.execPath, ['-e', script], {
    cwd: fileURLToPath(new URL('..', import.meta.url)),
    encoding: 'utf8',
  });
  rmSync(folder, { recursive: true, force: true });
  return Number(printed);
}
