import { count } from 'drizzle-orm';
import { createApplicationContext } from '#server/application';
import { AuditService } from '#server/audit';
import { tables, type OpenDatabase } from '#server/platform';
import { SealService } from '#server/transcripts';
import { demoAccounts } from './draw-people.js';
import { loadDistrict } from './load-district.js';
import { makeDistrict } from './make-district.js';

/** Periods that are over when the demo begins, and the day on which each was sealed. */
const sealed = [
  { periodId: 3, at: '2025-11-13T14:05:00Z' },
  { periodId: 12, at: '2025-12-03T11:40:00Z' },
  { periodId: 22, at: '2026-01-06T09:15:00Z' },
];

/** Makes the demo district in an empty database; a database that holds a school is left as it is. */
export async function prepareDemo(database: OpenDatabase): Promise<void> {
  const [schools] = await database.queries.select({ count: count() }).from(tables.schools);
  if (schools!.count > 0) return;
  await loadDistrict(database, makeDistrict().district);
  await sealPastPeriods(database);
}

/** As a registrar would have done it, through the services that do it. */
async function sealPastPeriods(database: OpenDatabase): Promise<void> {
  const { context, clock } = await createApplicationContext(database);
  const [{ personId, username, role, givenName, familyName }] = demoAccounts;
  const registrar = { personId, username, role, name: `${givenName} ${familyName}` };
  for (const { periodId, at } of sealed) {
    clock.setTo(new Date(at));
    await context.get(AuditService, { strict: false }).run(registrar, periodId);
    await context.get(SealService, { strict: false }).seal(registrar, periodId);
  }
  await context.close();
}
