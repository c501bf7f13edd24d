// The audit of one period of the demo district: the rules against the reading of what they judge, and one grade alone.
import { auditRules, runRules } from '#core/audit';
import { SnapshotService } from '#server/audit';
import { PeriodsRepository } from '#server/calendar';
import { onDemo } from './support/demo-database.mjs';
import { median } from './support/median.mjs';

const rounds = 9;

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
];
