import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AuditReply } from '#contract/audit';
import { auditNow } from '../../../test/audit-now.js';
import { openPeriod, quarterGrade } from '../../../test/sheets.js';
import { startTestServer, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

const ask = async <Row extends object>(statement: string) => (await server.database.pool.query<Row>(statement)).rows;

/** Grades and seats of the period made odd, the same way on every machine: each kind of oddness in one of twenty. */
async function disturb(seed: number): Promise<void> {
  const often = (kind: number) => `hashint4(g.id # ${seed * 7919 + kind}) % 20 = 0`;
  const amount = (kind: number, most: number) => `abs(hashint4(g.id # ${seed * 104_729 + kind}) % ${most})`;
  await ask(`
    UPDATE grades g SET
      percent = CASE WHEN ${often(1)} THEN ${amount(1, 14_000)} / 100.0 ELSE percent END,
      label = CASE WHEN ${often(2)} THEN NULL ELSE label END,
      code = CASE WHEN ${often(2)} THEN (SELECT code FROM special_codes ORDER BY code OFFSET ${amount(2, 5)} LIMIT 1) ELSE code END,
      comment = CASE WHEN ${often(3)} THEN repeat('Steady. ', 20 + ${amount(3, 200)}) ELSE comment END,
      last_date = CASE WHEN ${often(4)} THEN date '2025-10-20' + ${amount(4, 120)} ELSE last_date END,
      posted_at = CASE WHEN ${often(5)} THEN posted_at + make_interval(days => ${amount(5, 60)} - 30) ELSE posted_at END
    WHERE period_id = ${openPeriod}`);
  await ask(`
    UPDATE enrollments g SET
      entered_on = CASE WHEN ${often(6)} THEN date '2025-10-20' + ${amount(6, 90)} ELSE entered_on END,
      withdrawn_on = CASE WHEN ${often(7)} THEN date '2025-10-20' + ${amount(7, 90)} ELSE withdrawn_on END`);
  await ask(`
    INSERT INTO enrollments (section_id, student_id, entered_on)
    SELECT (SELECT min(o.id) FROM sections o WHERE o.course_id = s.course_id AND o.period_id = s.period_id AND o.id <> s.id),
      g.student_id, g.entered_on
    FROM enrollments g JOIN sections s ON s.id = g.section_id WHERE ${often(8)}
      AND EXISTS (SELECT FROM sections o WHERE o.course_id = s.course_id AND o.period_id = s.period_id AND o.id <> s.id)
    ON CONFLICT DO NOTHING`);
  await ask(`UPDATE special_codes SET is_off = code = (SELECT max(code) FROM grades WHERE period_id = ${openPeriod})`);
}

/** The rows of the quarter grade's sheets: who is in the section within the period, with the day they left within it. */
const rows = `
  SELECT g.*, e.entered_on, CASE WHEN e.withdrawn_on <= p.ends_on THEN e.withdrawn_on END AS withdrawn_on,
    i.highest_percent, i.comment_length, i.comment_rule, c.forbids_percent, c.is_off, c.needs_first_day,
    w.opens_at, coalesce(w.grace_until, w.closes_at) AS last_at, v.highest_level
  FROM grades g JOIN periods p ON p.id = g.period_id JOIN enrollments e ON e.id = g.enrollment_id
  JOIN report_items i ON i.id = g.item_id LEFT JOIN special_codes c ON c.code = g.code
  JOIN scale_versions sv ON sv.id = g.scale_version_id JOIN scales v ON v.id = sv.scale_id
  LEFT JOIN posting_windows w ON w.item_id = g.item_id AND w.period_id = g.period_id
  WHERE g.period_id = ${openPeriod} AND g.item_id = ${quarterGrade}
    AND (e.withdrawn_on IS NULL OR e.withdrawn_on >= p.starts_on)`;
const of = (condition: string) => `SELECT enrollment_id AS about FROM (${rows}) AS r WHERE ${condition}`;
/** Seats of the period, as sections have them. */
const seats = `
  SELECT e.*, s.course_id FROM enrollments e JOIN sections s ON s.id = e.section_id JOIN courses c ON c.id = s.course_id
  JOIN periods p ON p.id = ${openPeriod} AND c.school_id = p.school_id
  JOIN periods t ON t.id = s.period_id AND t.starts_on <= p.ends_on AND t.ends_on >= p.starts_on
  WHERE e.entered_on <= p.ends_on AND (e.withdrawn_on IS NULL OR e.withdrawn_on >= p.starts_on OR e.withdrawn_on < e.entered_on)`;

/** Eight rules, and one more, asked of the database in words of its own. */
const opinions = {
  'code-with-percent': of('percent IS NOT NULL AND forbids_percent'),
  'code-switched-off': of('is_off'),
  'percent-out-of-range': of('percent > coalesce(highest_level, highest_percent)'),
  'comment-too-long': of(`comment_rule <> 'none' AND length(comment) > comment_length`),
  'grade-on-withdrawn-student': of('withdrawn_on IS NOT NULL AND num_nonnulls(percent, label) > 0'),
  'last-date-outside-enrollment': of(
    `last_date > '1970-01-01' AND needs_first_day IS NOT TRUE AND (last_date < entered_on OR last_date > withdrawn_on)`,
  ),
  'posted-outside-window': of(
    'num_nonnulls(percent, label, code) > 0 AND (posted_at < opens_at OR posted_at > last_at)',
  ),
  'left-before-coming': `SELECT id AS about FROM (${seats}) AS r WHERE withdrawn_on < entered_on`,
  'enrolled-twice': `SELECT id AS about FROM (SELECT id, row_number() OVER (PARTITION BY student_id, course_id ORDER BY id) AS place
    FROM (${seats}) AS r WHERE withdrawn_on IS NULL) AS n WHERE place > 1`,
} as const satisfies Record<string, string>;

describe.each([1, 2, 3])('in a district made odd by %i', (seed) => {
  let audit: AuditReply;
  beforeAll(async () => {
    await disturb(seed);
    audit = (await auditNow(await server.as('morwenna'), openPeriod)).body;
  });

  it.each(Object.entries(opinions))('%s finds what the database finds', async (rule, statement) => {
    const expected = (await ask<{ about: number }>(statement)).map(({ about }) => about);
    const found = audit.run!.findings.filter(
      ({ ruleId, itemId }) => ruleId === rule && (itemId ?? quarterGrade) === quarterGrade,
    );
    expect(found.map(({ enrollmentId }) => enrollmentId!).toSorted((a, b) => a - b)).toEqual(
      expected.toSorted((a, b) => a - b),
    );
  });

  it('is odd indeed, and no rule fails on it', () => {
    expect(audit.run!.faults).toEqual([]);
    const found = new Set(audit.run!.findings.map(({ ruleId }) => ruleId));
    expect(Object.keys(opinions).filter((rule) => !found.has(rule))).toEqual([]);
  });
});
