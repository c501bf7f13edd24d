// All grades of a district of 350,000 enrollments and 10 million scores: against reading the scores once, against the same
// sums in SQL, as it grows, in memory; and how long the server is kept from answering while it calculates.
import { execFileSync } from 'node:child_process';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { fileURLToPath } from 'node:url';
import { RecalculationService } from '#server/calculation';
import { onDemo } from './support/demo-database.mjs';

const mostStall = 50;

export const measurements = [
  {
    what: 'grades of 350,000 enrollments from 10 million scores in memory',
    against: 'reading those scores once',
    limit: 30,
    measure: () => alone('reading'),
  },
  {
    what: 'the same, the lowest score dropped in two of four categories',
    against: 'reading those scores once',
    limit: 30,
    measure: () => alone('dropping'),
  },
  {
    what: 'grades of 350,000 enrollments, exact',
    against: 'the same sums in DuckDB, exact as well, both on one core',
    limit: 0.15,
    measure: () => alone('sql'),
  },
  {
    what: 'growth of the time from 3 to 10 million scores',
    against: 'growth of the scores',
    limit: 1.2,
    unit: 'times',
    measure: () => alone('growth'),
  },
  {
    what: 'memory of the process that does it',
    against: 'the limit of 700 MB',
    limit: 1,
    unit: 'MB',
    measure: () => alone('memory'),
  },
  {
    what: 'longest stall of the server while it calculates every grade book of the demo again',
    against: `the limit of ${mostStall} ms`,
    limit: 1,
    measure: async () => ({ ours: await longestStall(), peer: mostStall }),
  },
];

function alone(name) {
  const script = fileURLToPath(new URL('./support/recompute-alone.mjs', import.meta.url));
  return JSON.parse(execFileSync(process.execPath, [script, name], { encoding: 'utf8' }));
}

/** How long the event loop was kept from anything else, in milliseconds, over the demo with every book stale. */
function longestStall() {
  return onDemo(
    async (context) => {
      const recalculation = context.get(RecalculationService, { strict: false });
      const delay = monitorEventLoopDelay({ resolution: 1 });
      delay.enable();
      await recalculation.start();
      let progress = await recalculation.progress();
      while (progress.remaining > 0) {
        await new Promise((resolve) => setTimeout(resolve, 20));
        progress = await recalculation.progress();
      }
      delay.disable();
      return delay.max / 1e6;
    },
    ({ pool }) =>
      pool.query(
        'INSERT INTO stale_books (section_id, period_id) SELECT DISTINCT section_id, period_id FROM assignments',
      ),
  );
}
