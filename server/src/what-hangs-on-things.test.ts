import { afterAll, beforeAll, expect, it } from 'vitest';
import { periodUses } from './calendar/calendar.repository.js';
import { personUses } from './people/roster.repository.js';
import { enrollmentUses } from './sections/enrollments.repository.js';
import { sectionUses } from './sections/own-sections.repository.js';
import { schoolUses } from './schools/school.thing.js';
import type { UseBy } from '#server/platform';
import { startTestServer, type TestServer } from '../test/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

/** What goes with a period, or is a thing of the same change. */
const withPeriods = [
  'calculated_grades.period_id',
  'computed_grades.period_id',
  'periods.parent_id',
  'posting_windows.period_id',
  'seals.period_id',
  'stale_books.period_id',
];

const withSections = [
  'audit_findings.section_id',
  'finding_notes.section_id',
  'finding_notices.section_id',
  'section_co_teachers.section_id',
  'stale_books.section_id',
  'waivers.section_id',
];

it.each<[string, readonly UseBy[], readonly string[]]>([
  ['people', personUses, ['different_people.one_id', 'different_people.other_id']],
  ['schools', schoolUses, []],
  ['periods', periodUses, withPeriods],
  ['sections', sectionUses, withSections],
  ['enrollments', enrollmentUses, ['calculated_grades.enrollment_id']],
])('all that refers to %s is asked before one of them goes', async (table, uses, besides) => {
  const { rows } = await server.database.pool.query<{ column: string }>(
    `SELECT c.conrelid::regclass || '.' || a.attname AS column FROM pg_constraint c
     JOIN pg_attribute a ON a.attrelid = c.conrelid AND a.attnum = ANY(c.conkey)
     WHERE c.contype = 'f' AND c.confrelid = $1::regclass ORDER BY 1`,
    [table],
  );
  const asked = uses.map(([from, column]) => `${from}.${column}`);
  expect(rows.map(({ column }) => column)).toEqual([...asked, ...besides].toSorted());
});
