// The audit of one period of the demo district: the rules against the reading of what they judge, and one grade alone.
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { auditRules, runRules } from '#core/audit';
import { SnapshotService } from '#server/audit';
import { PeriodsRepository } from '#server/calendar';
import { onDemo } from './support/demo-database.mjs';
import { median } from './support/median.mjs';

const rounds = 9;
/** Whoever saves a sheet sees within so many milliseconds what the rules say of it now. */
const mostRecheck = 100;

/** Whoever waits for an answer meanwhile waits no longer. */
const mostStall = 50;

export const measurements = [
  {
    what: 'longest stall of the server while it audits a quarter of 6,200 grades, median of five audits',
    against: `the limit of ${mostStall} ms`,
    limit: 1,
    measure: () => ({ ours: alone(new URL('./support/audit-alone.mjs', import.meta.url)), peer: mostStall }),
  },
  {
    what: 'all rules over the 6,200 grades of a quarter',
    against: 'reading those grades and their sections from the embedded database',
    limit: 0.5,
    measure: () =>
      onDemo(async (context, database) => {
        const period = await context.get(PeriodsRepository, { strict: false }).byIdOrThrow(database.queries, 4);
        const read = () => context.get(SnapshotService, { strict: false }).ofAudit(database.queries, period);
        const { snapshot } = await read();
        return { ours: await median(rounds, () => runRules(auditRules, snapshot)), peer: await median(rounds, read) };
      }),
  },
  {
    what: 'looking again at the section of a grade that was saved after the audit of 6,200',
    against: `the limit of ${mostRecheck} ms`,
    limit: 1,
    measure: () => ({ ours: alone(new URL('./support/recheck-alone.mjs', import.meta.url)), peer: mostRecheck }),
  },
];

/** Milliseconds, in a process of its own, in which nothing else was measured before. */
function alone(script) {
  return JSON.parse(execFileSync(process.execPath, [fileURLToPath(script)], { encoding: 'utf8' }));
}
