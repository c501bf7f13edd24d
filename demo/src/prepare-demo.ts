import type { INestApplicationContext } from '@nestjs/common';
import { count } from 'drizzle-orm';
import { createApplicationContext } from '#server/application';
import { AuditTasksService, CertificatesService } from '#server/audit';
import { RecalculationService } from '#server/calculation';
import { ChangeLog } from '#server/changes';
import { Transactions, tables, type Actor, type Clock, type OpenDatabase } from '#server/platform';
import { SealService } from '#server/transcripts';
import type { District } from './district.js';
import { demoAccounts } from './demo-accounts.js';
import { loadDistrict } from './load-district.js';
import { makeDistrict } from './make-district.js';

const loadedAt = '2025-08-25T08:00:00Z';

/** Periods that are over when the demo begins, and the day on which each was sealed. */
const sealed = [
  { periodId: 32, at: '2025-10-30T10:30:00Z' },
  { periodId: 3, at: '2025-11-13T14:05:00Z' },
  { periodId: 12, at: '2025-12-03T11:40:00Z' },
  { periodId: 22, at: '2026-01-06T09:15:00Z' },
];

const { username, grants, givenName, familyName } = demoAccounts[0]!;
export const registrar: Actor = { personId: 1, username, grants, name: `${givenName} ${familyName}` };

/** Makes the demo district in an empty database; a database that holds a school is left as it is. */
export async function prepareDemo(database: OpenDatabase): Promise<void> {
  const [schools] = await database.queries.select({ count: count() }).from(tables.schools);
  if (schools!.count > 0) return;
  const { district, driftedGrades } = makeDistrict();
  await loadDistrict(database, district);
  const { context, clock } = await createApplicationContext(database);
  await logLoad(context, clock, district);
  await sealPastPeriods(context, clock);
  for (const { enrollmentId, itemId, periodId, percent, label } of driftedGrades)
    await database.pool.query(
      'UPDATE grades SET percent = $1, label = $2 WHERE enrollment_id = $3 AND item_id = $4 AND period_id = $5',
      [percent, label, enrollmentId, itemId, periodId],
    );
  await context.get(RecalculationService, { strict: false }).finish();
  await context.close();
}

async function logLoad(
  context: INestApplicationContext,
  clock: Clock,
  { people, sections, grades }: District,
): Promise<void> {
  clock.setTo(new Date(loadedAt));
  const after = { people: people.length, sections: sections.length, grades: grades.length };
  const change = { action: 'load demo district', thing: 'district', before: null, after };
  const log = context.get(ChangeLog, { strict: false });
  await context.get(Transactions, { strict: false }).run((queries) => log.record(queries, registrar, [change]));
}

/** As a registrar would have done it, through the services that do it. */
async function sealPastPeriods(context: INestApplicationContext, clock: Clock): Promise<void> {
  for (const { periodId, at } of sealed) {
    clock.setTo(new Date(at));
    await context.get(AuditTasksService, { strict: false }).runNow(registrar, periodId);
    await context.get(CertificatesService, { strict: false }).issue(registrar, { periodId, note: '' });
    await context.get(SealService, { strict: false }).seal(registrar, periodId);
  }
}
