// A log of a million entries on the embedded database: walking its chain against reading the entries, how long the server is
// kept from answering meanwhile, and a page of it under each filter against the plainest query.
import { createHash } from 'node:crypto';
import { monitorEventLoopDelay, performance } from 'node:perf_hooks';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { chainStart, entryHash } from '#core/changes';
import { ChainCheck, LogService } from '#server/changes';
import { onDemo } from './support/demo-database.mjs';

const entries = 1_000_000;
const mostStall = 50;
const mostPage = 100;

export const measurements = [
  {
    what: 'walking the chain of a log of 1,000,000 entries',
    against: 'reading those entries from the embedded database',
    limit: 2,
    measure: async () => {
      const { walking, reading } = await measured();
      return { ours: walking, peer: reading };
    },
  },
  {
    what: 'longest stall of the server meanwhile',
    against: `the limit of ${mostStall} ms`,
    limit: 1,
    measure: async () => ({ ours: (await measured()).stall, peer: mostStall }),
  },
  {
    what: 'the slowest page of that log: the newest, of a kind, of a thing, of a person, of an hour, by words, the oldest',
    against: `the limit of ${mostPage} ms`,
    limit: 1,
    measure: async () => ({ ours: (await measured()).page, peer: mostPage }),
  },
];

let once;
const measured = () => (once ??= measure());

/** Fills the log before the application begins, as it checks the chain when it does. */
const measure = () =>
  onDemo(async (context, database) => {
    const check = context.get(ChainCheck, { strict: false });
    const log = context.get(LogService, { strict: false });
    collectGarbage(); // of the million entries that were made, which is no part of the check
    const delay = monitorEventLoopDelay({ resolution: 1 });
    delay.enable();
    const started = performance.now();
    check.start();
    const { state, checked } = await check.finished();
    const walking = performance.now() - started;
    delay.disable();
    if (state !== 'whole') throw new Error(`the log of ${checked} entries is ${state}`);
    const reading = await timed(async () => {
      for (let last = 0; ;) {
        const { rows } = await database.pool.query('SELECT * FROM change_log WHERE id > $1 ORDER BY id LIMIT 250', [
          last,
        ]);
        if (rows.length === 0) return;
        last = rows.at(-1).id;
      }
    });
    const pages = [];
    for (const [filter, before] of [
      [{}],
      [{ thing: 'grade' }],
      [{ thing: 'grade 1/4/77' }],
      [{ personId: 2 }],
      [{ from: '2026-01-10T08:00:00Z', until: '2026-01-10T09:00:00Z' }],
      [{ text: 'the codes' }],
      [{}, 400],
    ])
      pages.push(await timed(() => log.page(filter, before)));
    return { walking, reading, stall: delay.max / 1e6, page: Math.max(...pages) };
  }, fill);

/** The log anew, as a year of posting fills it: grades mostly, and now and then the codes. */
async function fill({ pool }) {
  const sha256 = (text) => createHash('sha256').update(text).digest('hex');
  await pool.query('TRUNCATE change_log');
  let previousHash = chainStart;
  for (let from = 1; from <= entries; from += 5000) {
    const rows = [];
    for (let id = from; id < from + 5000; id++) {
      const isCodes = id % 1000 === 0;
      const entry = {
        at: new Date(Date.UTC(2025, 8, 1) + id * 20_000).toISOString(),
        actorId: (id % 70) + 1,
        actor: `Teacher ${id % 70}`,
        action: isCodes ? 'save the codes' : 'post Quarter grade of Tidal Ecology 1',
        thing: isCodes ? 'codes district' : `grade 1/4/${id % 6000}`,
        before: null,
        after: { percent: String(50 + (id % 50)), label: 'B', code: null, lastDate: null, hours: null, comment: '' },
        change: { id: Math.ceil(id / 20), undoes: null, why: null },
      };
      const hash = entryHash(entry, previousHash, sha256);
      const { change, actorId, ...row } = entry;
      rows.push({ ...row, id, actor_id: actorId, previous_hash: previousHash, hash, change_id: change.id });
      previousHash = hash;
    }
    await pool.query('INSERT INTO change_log SELECT * FROM jsonb_populate_recordset(NULL::change_log, $1::jsonb)', [
      JSON.stringify(rows),
    ]);
  }
  await pool.query('UPDATE log_head SET entries = $1, last_id = $1, hash = $2', [entries, previousHash]);
  await pool.query('VACUUM ANALYZE change_log');
}

function collectGarbage() {
  setFlagsFromString('--expose-gc');
  runInNewContext('gc')();
}

async function timed(work) {
  const started = performance.now();
  await work();
  return performance.now() - started;
}
