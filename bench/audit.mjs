// The audit of one period of the demo district: the rules against the reading of what they judge, and one grade alone.
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { auditByParts, auditRules } from '#core/audit';
import { SnapshotService } from '#server/audit';
import { PeriodsRepository } from '#server/calendar';
import { onDemo } from './support/demo-database.mjs';
import { onLargePeriod } from './support/large-period.mjs';
import { serverFlags } from '../scripts/steps.mjs';
import { median } from './support/median.mjs';

const rounds = 9;
/** Whoever saves a sheet sees within so many milliseconds what the rules say of it now. */
const mostRecheck = 100;

/** Whoever asks for something meanwhile waits for the one connection of the embedded database no longer. */
const mostWait = 50;

/** How often the upper school of the demo is there. */
const [few, many] = [24, 99];
const mostMemory = 1_000;

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
    what: 'longest wait for the database while it audits a quarter of 6,200 grades, median of five audits',
    against: `the limit of ${mostWait} ms`,
    limit: 1,
    measure: () => ({ ours: alone(new URL('./support/audit-wait-alone.mjs', import.meta.url)), peer: mostWait }),
  },
  {
    what: 'all rules over the 6,200 grades of a quarter',
    against: 'reading those grades and their sections from the embedded database',
    limit: 0.5,
    measure: () =>
      onDemo(async (context, { queries }) => {
        const of = (kind) => context.get(kind, { strict: false });
        const period = await of(PeriodsRepository).byIdOrThrow(queries, 4);
        const { running } = await of(SnapshotService).sectionsOf(queries, period);
        const parts = Array.from({ length: Math.ceil(running.length / 4) }, (_, at) =>
          running.slice(4 * at, 4 * at + 4),
        );
        const read = async () => {
          const snapshots = [];
          for (const part of parts) snapshots.push((await of(SnapshotService).ofAudit(queries, period, part)).snapshot);
          return snapshots;
        };
        const snapshots = await read();
        const look = () => {
          const audit = auditByParts(auditRules, new Map());
          for (const snapshot of snapshots) Array.from(audit.lookAt(snapshot));
          Array.from(audit.conclude());
        };
        return { ours: await median(rounds, look), peer: await median(rounds, read) };
      }),
  },
  {
    what: 'nine rules of grades and seats over 350,000 grades in memory',
    against: 'the same rules as SQL in DuckDB on one thread, with the same findings',
    limit: 4,
    measure: () => alone(new URL('./support/rules-alone.mjs', import.meta.url)),
  },
  {
    what: 'looking again at the section of a grade that was saved after the audit of 6,200',
    against: `the limit of ${mostRecheck} ms`,
    limit: 1,
    measure: () => ({ ours: alone(new URL('./support/recheck-alone.mjs', import.meta.url)), peer: mostRecheck }),
  },
  {
    what: 'a whole audit of 1,400,000 grades of 390,000 enrollments, on the embedded database',
    against: 'a COPY of the columns that its rules judge',
    limit: 1.8,
    measure: () => large(many),
  },
  {
    what: 'growth of its time from 350,000 grades',
    against: 'growth of the grades',
    limit: 1.2,
    unit: 'times',
    measure: async () => {
      const [less, more] = [await large(few), await large(many)];
      return { ours: more.ours / less.ours, peer: more.grades / less.grades };
    },
  },
  {
    what: 'most memory of the whole server, its database included, while it audits them',
    against: `the limit of ${mostMemory} MB`,
    limit: 1,
    unit: 'MB',
    measure: async () => ({ ours: (await large(many)).most, peer: mostMemory }),
  },
];

/** What a script measures in a process of its own, in which nothing else was measured before, started as a server is. */
function alone(script, ...given) {
  const command = [...serverFlags, fileURLToPath(script), ...given];
  return JSON.parse(execFileSync(process.execPath, command, { encoding: 'utf8' }));
}

const audited = new Map();

/** An audit of so many copies of the upper school, and the reading of the same columns; made once for all that is asked of it. */
function large(copies) {
  if (!audited.has(copies))
    audited.set(
      copies,
      onLargePeriod(copies, (folder) => alone(new URL('./support/large-audit-alone.mjs', import.meta.url), folder)),
    );
  return audited.get(copies);
}
