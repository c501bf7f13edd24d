// The audit of one period of the demo district: the rules against the reading of what they judge, and one grade alone.
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { auditRules, runRules } from '#core/audit';
import { AuditService, SnapshotService } from '#server/audit';
import { PeriodsRepository } from '#server/calendar';
import { onDemo } from './support/demo-database.mjs';
import { median } from './support/median.mjs';

const rounds = 9;
/** Whoever waits for an answer meanwhile waits no longer. */
const mostStall = 50;

export const measurements = [
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
    what: 'longest stall of the server while it audits that quarter',
    against: `the limit of ${mostStall} ms`,
    limit: 1,
    measure: () =>
      onDemo(async (context) => {
        const audits = context.get(AuditService, { strict: false });
        const audit = () => audits.runNow({ personId: 1, name: 'Registrar' }, 4);
        await audit(); // the first one meets cold code, as the first of anything does
        const delay = monitorEventLoopDelay({ resolution: 1 });
        delay.enable();
        await audit();
        delay.disable();
        return { ours: delay.max / 1e6, peer: mostStall };
      }),
  },
];
