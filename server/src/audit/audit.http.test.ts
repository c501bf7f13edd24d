import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { auditRules } from '#core/audit';
import type {
  AuditReply,
  DistributionsReply,
  FindingReply,
  GoneFindingReply,
  RuleSettingsReply,
} from '#contract/audit';
import type { SheetReply } from '#contract/posting';
import type { ReadinessReply } from '#contract/transcripts';
import type { Problem } from '#contract/problems';
import { auditNow } from '../../test/audit-now.js';
import { changeOf, openPeriod } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let reply: AuditReply;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  reply = await audit();
});
afterAll(() => server.stop());

const audit = async () => (await auditNow(registrar, openPeriod)).body;
const of = (id: string, { run } = reply) => run!.findings.filter(({ ruleId }) => ruleId === id);
const scopeOf = new Map(auditRules.map(({ id, scope }) => [id, scope]));
const ask = async <Row extends object>(statement: string) => (await server.database.pool.query<Row>(statement)).rows;

describe('what an audit finds beyond single grades', () => {
  it('names what each finding is about, and where it is opened', () => {
    const { findings } = reply.run!;
    for (const { ruleId, subject, openSectionId, course, student, mark, sentence } of findings) {
      const scope = scopeOf.get(ruleId)!;
      expect([ruleId, subject === '', /[{}]/.test(sentence)]).toEqual([ruleId, false, false]);
      expect([ruleId, openSectionId === null]).toEqual([ruleId, scope === 'course' || scope === 'item']);
      expect([ruleId, student !== null]).toEqual([ruleId, scope === 'grade' || scope === 'student']);
      expect([ruleId, mark !== null]).toEqual([ruleId, scope === 'grade']);
      expect([ruleId, course === null]).toEqual([ruleId, scope === 'item']);
    }
    expect(new Set(findings.map(({ key }) => key)).size).toBe(findings.length);
    expect(new Set(findings.map(({ ruleId }) => scopeOf.get(ruleId))).size).toBeGreaterThanOrEqual(4);
  });

  // The same questions asked of the database, in words of its own.
  it.each<[rule: string, about: (finding: FindingReply) => unknown, statement: string]>([
    [
      'due-outside-period',
      ({ openSectionId }) => openSectionId,
      `SELECT DISTINCT a.section_id AS about FROM assignments a JOIN periods p ON p.id = a.period_id
       WHERE p.id = ${openPeriod} AND a.is_counted AND NOT a.due_on BETWEEN p.starts_on AND p.ends_on`,
    ],
    [
      'scored-not-published',
      ({ openSectionId }) => openSectionId,
      `SELECT DISTINCT a.section_id AS about FROM assignments a JOIN scores s ON s.assignment_id = a.id AND s.points IS NOT NULL
       WHERE a.period_id = ${openPeriod} AND a.is_counted AND NOT a.is_published`,
    ],
    [
      'one-value-for-all',
      ({ openSectionId, itemId }) => `${openSectionId}/${itemId}`,
      `SELECT e.section_id || '/' || g.item_id AS about FROM grades g JOIN enrollments e ON e.id = g.enrollment_id
       JOIN periods p ON p.id = g.period_id
       WHERE p.id = ${openPeriod} AND g.code IS NULL AND (g.percent IS NOT NULL OR g.label IS NOT NULL)
         AND (e.withdrawn_on IS NULL OR e.withdrawn_on > p.ends_on)
       GROUP BY e.section_id, g.item_id
       HAVING count(*) >= 10 AND count(DISTINCT (g.percent, g.label)) = 1`,
    ],
    [
      'sections-weighted-differently',
      ({ courseId }) => courseId,
      `WITH used AS (SELECT s.id, s.course_id, coalesce(own.body, department.body, school.body) AS body
         FROM sections s JOIN courses c ON c.id = s.course_id JOIN periods t ON t.id = s.period_id
         JOIN periods p ON p.id = ${openPeriod} AND t.starts_on <= p.ends_on AND t.ends_on >= p.starts_on AND c.school_id = p.school_id
         LEFT JOIN calculation_policies own ON own.section_id = s.id AND (own.period_id = p.id OR own.period_id IS NULL)
         LEFT JOIN calculation_policies department ON department.school_id = c.school_id AND department.department = c.department
         LEFT JOIN calculation_policies school ON school.school_id = c.school_id AND school.department IS NULL AND school.section_id IS NULL)
       SELECT course_id AS about FROM used GROUP BY 1 HAVING count(DISTINCT (body -> 'method', body -> 'categories')) > 1`,
    ],
  ])('%s finds what the database finds', async (rule, about, statement) => {
    const expected = (await ask<{ about: unknown }>(statement)).map((row) => row.about);
    expect(of(rule).map(about).toSorted()).toEqual(expected.toSorted());
  });

  it('tells of a sheet that is not signed off once its window is over, and of a grade that no sheet expects', async () => {
    await server.database.pool.query(
      `UPDATE posting_windows SET closes_at = '2026-01-20T17:00:00Z', grace_until = NULL WHERE period_id = ${openPeriod}`,
    );
    await server.database.pool.query(
      `INSERT INTO report_item_exceptions (item_id, course_id, effect, reason)
       SELECT item_id, course_id, 'omits', 'Taken off.' FROM (SELECT g.item_id, s.course_id FROM grades g JOIN enrollments e ON e.id = g.enrollment_id
       JOIN sections s ON s.id = e.section_id WHERE g.period_id = ${openPeriod} ORDER BY g.id LIMIT 1) AS first ON CONFLICT DO NOTHING`,
    );
    const later = await audit();
    const open = await ask<{ open: number }>(
      `SELECT count(*)::int AS open FROM sign_offs WHERE period_id = ${openPeriod}`,
    );
    expect(of('sheet-not-signed-off', later).length).toBeGreaterThan(open[0]!.open / 10);
    const strays = of('grade-not-expected', later);
    expect(strays.length).toBeGreaterThan(5);
    expect(strays[0]).toMatchObject({ mark: null, openSectionId: expect.any(Number) });
    expect(strays[0]!.sentence).toMatch(/which the course does not report\.$/);
  });

  it('lets a finding about a section stand, until it says something else', async () => {
    const [finding] = of('due-outside-period');
    const { ruleId, enrollmentId, sectionId, courseId, itemId, waiverRevision: revision } = finding!;
    const place = { ruleId, enrollmentId, sectionId, courseId, itemId, revision };
    const waive = { periodId: openPeriod, findings: [place], reason: 'Moved with the calendar.', until: null };
    const { status, body, change } = await registrar.send<AuditReply>('PUT', '/audit/waivers', waive);
    const waiver = (from: AuditReply) => of('due-outside-period', from)[0]?.waiver;
    expect([status, waiver(body)?.state]).toEqual([200, 'holds']);
    const { body: mine } = await registrar.get<{ action: string; parts?: unknown }[]>('/changes/mine');
    expect(mine[0]!.action).toBe('waive 1 finding (Assignments due outside the period)');
    await server.database.pool.query("UPDATE assignments SET due_on = '2025-11-04' WHERE due_on = '2025-11-03'");
    expect(waiver(await audit())?.state).toBe('changed');
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect(waiver((await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body)).toBeNull();
  });
});

describe('a section beside its sisters', () => {
  const distributions = (section: number, item: number, client = registrar) =>
    client.get<DistributionsReply & Problem>(
      `/audit/distributions?period=${openPeriod}&section=${section}&item=${item}`,
    );

  it('has the labels that the database counts, and no group of fewer than ten', async () => {
    const finding = of('unlike-sister-sections').at(-1);
    const { openSectionId: section, itemId: item } = finding!;
    const { labels, own, sisters, earlier } = (await distributions(section!, item!)).body;
    const rows = await ask<{ id: number; label: string; grades: number }>(
      `SELECT s.id, g.label, count(*)::int AS grades FROM grades g JOIN enrollments e ON e.id = g.enrollment_id
       JOIN sections s ON s.id = e.section_id JOIN periods p ON p.id = g.period_id
       WHERE s.course_id = (SELECT course_id FROM sections WHERE id = ${section}) AND g.item_id = ${item} AND p.id = ${openPeriod}
         AND g.code IS NULL AND g.label IS NOT NULL AND (e.withdrawn_on IS NULL OR e.withdrawn_on > p.ends_on) GROUP BY 1, 2`,
    );
    const countOf = (label: string, isOwn: boolean) =>
      rows
        .filter((row) => row.label === label && (row.id === section) === isOwn)
        .reduce((sum, row) => sum + row.grades, 0);
    expect(own!.counts).toEqual(labels.map((label) => countOf(label, true)));
    expect(labels.map((_label, at) => sisters.reduce((sum, each) => sum + each.counts[at]!, 0))).toEqual(
      labels.map((label) => countOf(label, false)),
    );
    expect([...sisters, ...earlier].filter(({ grades }) => grades < 10)).toEqual([]);
    expect(earlier.map(({ name }) => name)).toEqual(['Quarter 1 2025–26']);
  });

  it('has a mean so far from theirs, with an interval about it, as the percentages themselves say', async () => {
    const { openSectionId: section, itemId: item } = of('unlike-sister-sections').at(-1)!;
    const { shift } = (await distributions(section!, item!)).body;
    const rows = await ask<{ own: boolean; percent: number }>(
      `SELECT s.id = ${section} AS own, g.percent::float8 AS percent FROM grades g JOIN enrollments e ON e.id = g.enrollment_id
       JOIN sections s ON s.id = e.section_id JOIN periods p ON p.id = g.period_id
       WHERE s.course_id = (SELECT course_id FROM sections WHERE id = ${section}) AND g.item_id = ${item} AND p.id = ${openPeriod}
         AND g.code IS NULL AND g.percent IS NOT NULL AND (e.withdrawn_on IS NULL OR e.withdrawn_on > p.ends_on)`,
    );
    const [own, others] = [true, false].map((isOwn) =>
      rows.filter((row) => row.own === isOwn).map(({ percent }) => percent),
    );
    const mean = (values: readonly number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;
    const expected = mean(own!) - mean(others!);
    expect([shift!.own, shift!.others]).toEqual([own!.length, others!.length]);
    expect(Number(shift!.shift)).toBeCloseTo(expected, 1);
    // About it on either side alike, and wider than a fiftieth of the spread.
    expect((Number(shift!.low) + Number(shift!.high)) / 2).toBeCloseTo(expected, 0);
    expect(Number(shift!.high) - Number(shift!.low)).toBeGreaterThan(1);
  });

  it('is for whoever may read findings, of a section that reports the item', async () => {
    const finding = of('unlike-sister-sections').at(-1);
    const teacher = await server.as('harun');
    expect((await distributions(finding!.openSectionId!, finding!.itemId!, teacher)).status).toBe(403);
    expect((await distributions(999_999, finding!.itemId!)).status).toBe(404);
    expect((await distributions(finding!.openSectionId!, 999_999)).status).toBe(404);
  });
});

it('the findings come as a file, a row each, to whoever may read them', async () => {
  const path = `/audit/findings?period=${openPeriod}`;
  const { body } = await registrar.get<Uint8Array>(`${path}&type=csv`, 'bytes');
  const lines = new TextDecoder().decode(body).trim().split('\r\n');
  const { run } = (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body;
  expect(lines).toHaveLength(run!.findings.length + 1);
  expect(lines[0]).toMatch(/^\uFEFF?Severity,Rule,Finding,Student,Section,Course/);
  expect(lines[1]).toMatch(/^blocks sealing,Grade missing,/);
  const workbook = await registrar.get<Uint8Array>(`${path}&type=xlsx`, 'bytes');
  expect(new TextDecoder().decode(workbook.body.slice(0, 2))).toBe('PK');
  expect((await registrar.get<Problem>(`${path}&type=pdf`)).status).toBe(400);
  expect((await (await server.as('harun')).get(`${path}&type=csv`)).status).toBe(403);
});

it('a rule that could not run is told of, and no seal rests on such an audit', async () => {
  await server.database.pool.query(
    `UPDATE audit_runs SET rules = jsonb_set(rules, '{0,problem}', '"no such thing"') WHERE id = (SELECT max(id) FROM audit_runs)`,
  );
  const { run } = (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body;
  expect(run!.faults).toEqual([{ ruleId: auditRules[0]!.id, problem: 'no such thing' }]);
  const steps = (await registrar.get<ReadinessReply>(`/seals/readiness?period=${openPeriod}`)).body.steps;
  expect(steps.find(({ code }) => code === 'audited')!.isDone).toBe(false);
  const { status, body } = await registrar.send<Problem>('POST', '/seals', { periodId: openPeriod });
  expect([status, body.code]).toEqual([409, 'audit-incomplete']);
});

describe('what is gone since the run before', () => {
  const gone = async () => (await registrar.get<GoneFindingReply[]>(`/audit/gone?period=${openPeriod}`)).body;

  it('is nothing where nothing was done', async () => {
    await auditNow(registrar, openPeriod);
    expect(await gone()).toEqual([]);
  });

  it('names who saved the grade, and keeps apart what was switched off or set right elsewhere', async () => {
    const before = (await auditNow(registrar, openPeriod)).body;
    const [saved] = of('percent-and-label-disagree', before);
    const path = `/grade-sheets/${saved!.openSectionId}/${saved!.itemId}/${openPeriod}`;
    const { rows } = (await registrar.get<SheetReply>(path)).body;
    const row = rows.find(({ enrollmentId }) => enrollmentId === saved!.enrollmentId)!;
    const settings = (await registrar.get<RuleSettingsReply>('/audit/rules?school=1')).body;
    const changes = [changeOf(row, { percent: '75', label: 'C' })];
    expect((await registrar.send('PUT', path, { changes, outsideWindow: true })).status).toBe(200);
    const exceptions = { departments: [], courses: [] };
    await registrar.send('PUT', '/audit/rules/1', {
      rules: [{ ruleId: 'zero-posted', effect: 'off', threshold: null, exceptions }],
      revision: settings.schoolRevision,
    });
    const outside = of('due-outside-period', before).map(({ sectionId }) => sectionId);
    await ask(`UPDATE assignments SET is_counted = false WHERE section_id IN (${outside.join()}) AND period_id = ${openPeriod}
      AND NOT due_on BETWEEN (SELECT starts_on FROM periods WHERE id = ${openPeriod}) AND (SELECT ends_on FROM periods WHERE id = ${openPeriod})`);
    await auditNow(registrar, openPeriod);
    const all = await gone();
    const told = (id: string) => all.filter(({ key }) => key.startsWith(`${id}:`)).map(({ why, by }) => [why, by]);
    expect(told('percent-and-label-disagree')).toEqual([['saved', 'Morwenna Oake']]);
    expect(told('zero-posted')).toEqual([['rule-off', null]]);
    expect(told('due-outside-period')).toEqual(outside.map(() => ['elsewhere', null]));
    expect(all.find(({ key }) => key === saved!.key)).toMatchObject({
      sentence: saved!.sentence,
      subject: saved!.subject,
    });
  });
});
