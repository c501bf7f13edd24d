// All grades of a district of 350,000 enrollments and 10 million scores: against reading the scores once, against the same
// sums in SQL, as it grows, in memory; and how long the server is kept from answering while it calculates.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { fileURLToPath } from 'node:url';
import { DuckDBInstance } from '@duckdb/node-api';
import { calculateGrades, preparePolicy } from '#core/calculation';
import { prepareDemo } from '#demo';
import { createApplicationContext, seedFile } from '#server/application';
import { RecalculationService } from '#server/calculation';
import { makeSeed, openDatabase } from '#server/platform';
import { gradeBooks, gradeBookTables, policy, sizeOf, sums } from './support/grade-books.mjs';
import { median } from './support/median.mjs';

const rounds = 5;
const full = sizeOf(350_000, 10_000_000);
const part = sizeOf(105_000, 3_000_000);
const precision = { digits: 1, rounding: 'halfUp' };
const mostMegabytes = 700;
const mostStall = 50;

const calculation = (columns, drops = 0) => {
  const dropping = {
    ...policy,
    categories: policy.categories.map((share, at) => ({ ...share, dropLowest: at < 2 ? drops : 0 })),
  };
  const prepared = [preparePolicy(dropping)];
  const policyOf = new Uint8Array(columns.starts.length - 1);
  return () => calculateGrades(columns, prepared, policyOf, precision);
};

export const measurements = [
  {
    what: 'grades of 350,000 enrollments from 10 million scores in memory',
    against: 'reading those scores once',
    limit: 30,
    measure: () => againstReading(0),
  },
  {
    what: 'the same, the lowest score dropped in two of four categories',
    against: 'reading those scores once',
    limit: 30,
    measure: () => againstReading(1),
  },
  {
    what: 'grades of 350,000 enrollments, exact',
    against: 'the same sums in DuckDB in binary fractions, both on one core',
    limit: 0.15,
    measure: againstSql,
  },
  {
    what: 'growth of the time from 3 to 10 million scores',
    against: 'growth of the scores',
    limit: 1.2,
    unit: 'times',
    async measure() {
      const [small, large] = [await timeOf(part), await timeOf(full)];
      return { ours: large / small, peer: full.scores / part.scores };
    },
  },
  {
    what: 'peak memory of the process that does it',
    against: `the limit of ${mostMegabytes} MB`,
    limit: 1,
    unit: 'MB',
    measure: () => ({ ours: peakMegabytes(), peer: mostMegabytes }),
  },
  {
    what: 'longest stall of the server while it calculates every grade book of the demo again',
    against: `the limit of ${mostStall} ms`,
    limit: 1,
    measure: async () => ({ ours: await longestStall(), peer: mostStall }),
  },
];

async function againstReading(drops) {
  const columns = gradeBooks(full);
  return { ours: await median(rounds, calculation(columns, drops)), peer: await median(rounds, () => read(columns)) };
}

/** Reads what a calculation has to read of each score, and does nothing with it but add. */
function read({ points, flag, assignment }) {
  let sum = 0;
  for (let score = 0; score < points.length; score++) sum += points[score] + flag[score] + assignment[score];
  if (sum === 0) throw new Error('there are no scores');
}

async function timeOf(size) {
  return median(rounds, calculation(gradeBooks(size)));
}

async function againstSql() {
  const ours = calculation(gradeBooks(full));
  const instance = await DuckDBInstance.create(':memory:', { threads: '1' });
  const connection = await instance.connect();
  for (const statement of gradeBookTables(full)) await connection.run(statement);
  const measured = { ours: await median(rounds, ours), peer: await median(rounds, () => connection.run(sums)) };
  const reader = await connection.runAndReadAll('SELECT percent FROM result ORDER BY enrollment');
  refuseOtherSums(ours().percent, reader.getColumns()[0]);
  connection.closeSync();
  return measured;
}

/** Both must have done the same sums: they may differ only where a binary fraction falls on the wrong side of an edge. */
function refuseOtherSums(ours, theirs) {
  let differing = 0;
  for (const [at, percent] of ours.entries()) {
    if (percent === theirs[at]) continue;
    if (Math.abs(percent - theirs[at]) > 1) throw new Error(`enrollment ${at}: ${percent} and ${theirs[at]}`);
    differing++;
  }
  if (theirs.length !== ours.length || differing > ours.length / 10_000)
    throw new Error(`${differing} of ${ours.length} grades differ from those in SQL`);
}

/** In a process of its own, which makes the columns and calculates them. */
function peakMegabytes() {
  const script = fileURLToPath(new URL('./support/recompute-once.mjs', import.meta.url));
  return Number(execFileSync(process.execPath, [script], { encoding: 'utf8' }));
}

/** How long the event loop was kept from anything else, in milliseconds, over the demo with every book stale. */
async function longestStall() {
  const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
  await makeSeed(seedFile);
  const database = await openDatabase({ kind: 'folder', folder, seedFile });
  try {
    await prepareDemo(database);
    await database.pool.query(
      'INSERT INTO stale_books (section_id, period_id) SELECT DISTINCT section_id, period_id FROM assignments',
    );
    const delay = monitorEventLoopDelay({ resolution: 1 });
    const { context } = await createApplicationContext(database);
    const recalculation = context.get(RecalculationService, { strict: false });
    delay.enable();
    await recalculation.start();
    let progress = await recalculation.progress();
    while (progress.remaining > 0) {
      await new Promise((resolve) => setTimeout(resolve, 20));
      progress = await recalculation.progress();
    }
    delay.disable();
    await context.close();
    return delay.max / 1e6;
  } finally {
    await database.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
