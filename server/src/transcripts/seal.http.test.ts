import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal, roundHalfUp } from '#core/numbers';
import { gpa } from '#core/transcripts';
import type { AuditReply, CourseCertificatesReply, FindingReply } from '#contract/audit';
import type { SheetListReply, SheetReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import {
  entryOfReply,
  gpaPolicyOfBody,
  type GpaPolicyReply,
  type ReadinessReply,
  type StudentReply,
  type StudentRowReply,
  type TranscriptReply,
} from '#contract/transcripts';
import { auditNow } from '../../test/audit-now.js';
import { changeOf, openPeriod, quarterGrade } from '../../test/sheets.js';
import { checkLog } from '../../test/check-log.js';
import { blockingOf, rightLabel, settlePeriod } from '../../test/settle-period.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

interface PlantedFault {
  readonly rule: string;
  readonly section: string;
  readonly student: string | null;
  readonly period: string;
}
const planted = (
  JSON.parse(readFileSync(new URL('../../../demo/planted-faults.json', import.meta.url), 'utf8')) as PlantedFault[]
).filter(({ period }) => period === 'Quarter 2');
const place = ({ ruleId, section, student }: Pick<FindingReply, 'ruleId' | 'section' | 'student'>) =>
  `${ruleId}: ${section}, ${student}`;

/** The sections whose files were not taken in yet; everything in them is missing. */
const waiting: readonly (string | null)[] = ['Tidal Ecology 1', 'Harbour History 2', 'Boatbuilding 1'];

const runAudit = async () => (await auditNow(registrar, openPeriod)).body;
const audit = async () => (await runAudit()).run!;
const seal = <Body>() => registrar.send<Body>('POST', '/seals', { periodId: openPeriod });
const readiness = async () => (await registrar.get<ReadinessReply>(`/seals/readiness?period=${openPeriod}`)).body;
const postings = async (section: number) =>
  (await registrar.get<SheetReply>(`/grade-sheets/${section}/${quarterGrade}/${openPeriod}`)).body;
/** Certifies the courses that stand at even or at odd places of the list. */
async function certifyCoursesOf(half: 0 | 1): Promise<void> {
  const { courses } = (await registrar.get<CourseCertificatesReply>(`/audit/certificates?period=${openPeriod}`)).body;
  const courseIds = courses.filter((_course, at) => at % 2 === half).map(({ id }) => id);
  const request = { periodId: openPeriod, courseIds, note: '' };
  expect((await registrar.send('POST', '/audit/certificates', request)).status).toBe(200);
}
/** A minute passes between one thing and the next, as it would at a desk. */
const later = () => server.clock.setTo(new Date(server.clock.now().getTime() + 60_000));

async function post(sectionId: number, changes: readonly object[]): Promise<void> {
  later();
  const answer = await registrar.send('PUT', `/grade-sheets/${sectionId}/${quarterGrade}/${openPeriod}`, { changes });
  expect(answer.status).toBe(200);
}

describe('how averages are made', () => {
  const read = async () => (await registrar.get<GpaPolicyReply>('/gpa-policy')).body;
  const save = <Body>(reply: GpaPolicyReply, change: object) =>
    registrar.send<Body>('PUT', '/gpa-policy', { ...reply.policy, ...change, revision: reply.revision });

  it('is said with what counts in them, changes on what was looked at, and goes back', async () => {
    const before = await read();
    expect(before.policy).toMatchObject({ repeats: 'all', leastAddedPoints: '1.7' });
    expect([before.coursesCounted, before.coursesNotCounted, before.codes]).toEqual([83, 25, []]);
    expect(before.items.map(({ name }) => name)).toEqual(['Quarter grade', 'Term grade', 'Term grade']);
    const { status, body } = await save<GpaPolicyReply>(before, { digits: 2, mostAddedCredits: '4' });
    expect([status, body.policy.digits, body.policy.mostAddedCredits]).toEqual([200, 2, '4']);
    expect((await save<Problem>(before, { digits: 1 })).body.code).toBe('changed-meanwhile');
    expect((await save<GpaPolicyReply>(body, before.policy)).body).toEqual(before);
  });

  it.each([
    [{ digits: 5 }, 'digits'],
    [{ repeats: 'worst' }, 'repeats'],
    [{ leastAddedPoints: 'C' }, 'leastAddedPoints'],
    [{ mostAddedCredits: '-1' }, 'mostAddedCredits'],
  ])('names the field of %j', async (change, field) => {
    const { status, body } = await save<Problem>(await read(), change);
    expect([status, body.errors[0]?.field]).toEqual([422, field]);
  });
});

describe('the list of students', () => {
  const list = async (query = '', period = openPeriod) =>
    (await registrar.get<StudentRowReply[]>(`/student-list?school=1&period=${period}${query}`)).body;

  it('lacks for all together what the sheets of the period lack', async () => {
    const rows = await list();
    const { body: lists } = await registrar.get<SheetListReply[]>(`/grade-sheets?period=${openPeriod}`);
    const lacking = lists.flatMap(({ sheets }) => sheets.map(({ expected, posted }) => expected - posted));
    expect(rows).toHaveLength(560);
    expect(rows.reduce((sum, { blanks }) => sum + blanks, 0)).toBe(lacking.reduce((sum, blanks) => sum + blanks, 0));
  });

  it('says of each the credits and the GPA that the transcript says', async () => {
    const rows = await list();
    for (const row of rows.filter((_row, at) => at % 80 === 0)) {
      const { body } = await registrar.get<TranscriptReply>(`/students/${row.id}/transcript`);
      const sealed = body.periods.filter(({ sealedAt }) => sealedAt !== null).flatMap(({ entries }) => entries);
      const total = (amounts: readonly string[]) =>
        amounts.reduce((sum, each) => sum + Math.round(Number(each) * 1e4), 0);
      expect([row.creditsAttempted, row.creditsEarned].map((each) => Math.round(Number(each) * 1e4))).toEqual([
        total(sealed.map(({ creditsTried }) => creditsTried)),
        total(sealed.map(({ creditsEarned }) => creditsEarned)),
      ]);
      const value = gpa(sealed.map(entryOfReply), gpaPolicyOfBody(body.policy)).value;
      expect(row.gpa).toBe(value && formatDecimal(value));
    }
  });

  it('is searched by family name, by both names in either order, and by number; the registrar’s alone', async () => {
    const [first] = await list();
    const [family, given] = first!.name.split(', ');
    for (const text of [`${family}, ${given}`, `${given} ${family}`, first!.studentNumber])
      expect((await list(`&text=${encodeURIComponent(text)}`)).map(({ id }) => id)).toContain(first!.id);
    expect(await list('&text=%25%25')).toEqual([]);
    const teacher = await server.as('harun');
    expect((await teacher.get(`/student-list?school=1&period=${openPeriod}`)).status).toBe(403);
  });
});

describe('the audit', () => {
  it('is needed before a seal', async () => {
    const { status, body } = await seal<Problem>();
    expect([status, body.code, body.detail]).toEqual([
      409,
      'audit-needed',
      'Run the audit of Quarter 2 before sealing it.',
    ]);
  });

  it('finds every planted fault; besides them nothing blocks but the sections that nothing was posted for', async () => {
    const reply = await runAudit();
    const { findings, gradesChecked, sinceLastRun } = reply.run!;
    const blocking = new Set(blockingOf(reply));
    const known = planted.map(({ rule, section, student }) => place({ ruleId: rule, section, student }));
    const found = findings.filter(({ section }) => !waiting.includes(section));
    expect(found.map(place)).toEqual(expect.arrayContaining(known));
    expect(found.filter((each) => blocking.has(each) && !known.includes(place(each)))).toEqual([]);
    expect(findings.filter(({ section, ruleId }) => waiting.includes(section) && ruleId !== 'grade-missing')).toEqual(
      [],
    );
    expect([gradesChecked > 3800, sinceLastRun]).toEqual([true, null]);
  });

  it('blocks the seal while findings are open', async () => {
    const { status, body } = await seal<Problem>();
    expect([status, body.code]).toEqual([409, 'findings-block']);
    const { steps, isReady } = await readiness();
    expect(steps.filter(({ isDone }) => !isDone).map(({ code }) => code)).toEqual([
      'window',
      'posted',
      'settled',
      'certified',
    ]);
    expect(isReady).toBe(false);
  });

  it('run again after a grade is mended says what is gone', async () => {
    const { findings } = (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.run!;
    const finding = findings.find(({ ruleId }) => ruleId === 'label-not-on-scale')!;
    expect(finding.sentence).toMatch(/^[SE] is posted; Letter scale knows A, A-, B\+/);
    const sheet = await postings(finding.openSectionId!);
    const row = sheet.rows.find(({ enrollmentId }) => enrollmentId === finding.enrollmentId)!;
    await post(finding.openSectionId!, [changeOf(row, { label: rightLabel(sheet, row.mark) })]);
    expect((await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.run!.changedSince).toBe(1);
    expect((await seal<Problem>()).body.code).toBe('audit-outdated');
    later();
    const run = await audit();
    // The label was all that was wrong with the grade, by whatever rule.
    const gone = findings.filter(
      ({ enrollmentId, itemId }) => enrollmentId === finding.enrollmentId && itemId === finding.itemId,
    );
    expect(run.sinceLastRun).toMatchObject({ added: 0, still: findings.length - gone.length, gone: gone.length });
    expect(run.findings.map(({ key }) => key)).not.toContain(finding.key);
  });
});

describe('the seal', () => {
  it('is struck once everything is posted, audited and settled', async () => {
    await settlePeriod(registrar, later);
    later();
    expect(blockingOf(await runAudit())).toEqual([]);
    const certified = async () => (await readiness()).steps.find(({ code }) => code === 'certified');
    await certifyCoursesOf(0);
    expect([await certified(), (await seal<Problem>()).body.code]).toMatchObject([
      { isDone: false },
      'certificate-needed',
    ]);
    await certifyCoursesOf(1);
    expect(await certified()).toMatchObject({ isDone: true, count: 2 });
    const before = await readiness();
    expect([before.isReady, before.posted]).toEqual([true, before.expected]);
    const { status, body } = await seal<ReadinessReply>();
    expect([status, body.seal?.by, body.seal?.entries]).toEqual([200, 'Morwenna Oake', before.entries]);
    expect((await seal<Problem>()).body.code).toBe('already-sealed');
  });

  it('copies the grades: what changes afterwards in courses or scales changes no transcript', async () => {
    const [student] = (await registrar.get<StudentReply[]>('/students?school=1&text=wick')).body;
    const before = (await registrar.get<TranscriptReply>(`/students/${student!.id}/transcript`)).body;
    await server.database.pool.query(`UPDATE courses SET title = 'Renamed', credits = 9`);
    await server.database.pool.query(`UPDATE bands SET points = 0`);
    await server.database.pool.query(`UPDATE grades SET label = 'F', code = NULL WHERE period_id = ${openPeriod}`);
    expect((await registrar.get<TranscriptReply>(`/students/${student!.id}/transcript`)).body).toEqual(before);
    expect(before.periods.map(({ name, sealedAt }) => [name, sealedAt !== null])).toEqual([
      ['Quarter 1', true],
      ['Quarter 2', true],
    ]);
  });

  it('gives the credits of a year-long course a quarter at a time, and a GPA that the database adds up to as well', async () => {
    const { rows } = await server.database.pool.query<{ student_id: number; gpa: string; tried: string }>(`
      SELECT student_id, round(sum(points * credits_tried) / sum(credits_tried), 3)::text AS gpa, sum(credits_tried)::text AS tried
      FROM transcript_entries WHERE counts_in_gpa AND points IS NOT NULL
        AND student_id IN (SELECT id FROM people WHERE school_id = 1) GROUP BY student_id`);
    expect(rows.length).toBe(560);
    const nothing = decimalOrThrow('0');
    const policy = {
      additions: { regular: nothing, honours: nothing, college: nothing },
      leastAddedPoints: nothing,
      mostAddedCredits: null,
      repeats: 'all' as const,
      digits: 3,
      rounding: roundHalfUp,
    };
    for (const row of rows.filter((_row, at) => at % 40 === 0)) {
      const { periods } = (await registrar.get<TranscriptReply>(`/students/${row.student_id}/transcript`)).body;
      const entries = periods.flatMap((period) => period.entries.map(entryOfReply));
      expect(formatDecimal(gpa(entries, policy).value!)).toBe(row.gpa);
      expect(entries.every(({ creditsTried }) => formatDecimal(creditsTried) === '0.2500')).toBe(true);
    }
  });
});

describe('who reads a transcript', () => {
  it('is remembered, with whose it was: once while the page is open, and again for another visit', async () => {
    const [first, second] = (await registrar.get<StudentRowReply[]>('/student-list?school=1&period=4')).body;
    const pass = (minutes: number) => server.clock.setTo(new Date(server.clock.now().getTime() + minutes * 60_000));
    pass(16);
    const { rows } = await server.database.pool.query<{ id: number }>('SELECT max(id) AS id FROM change_log');
    const read = ({ id }: StudentRowReply) => registrar.get(`/students/${id}/transcript`);
    const noted = async () =>
      (
        await server.database.pool.query<{ told: string }>(
          `SELECT concat_ws(' | ', actor, thing, after->>'name', change_id) AS told FROM change_log
           WHERE action = 'read transcript' AND id > $1 ORDER BY id`,
          [rows[0]!.id],
        )
      ).rows.map(({ told }) => told);
    const told = (student: StudentRowReply) => `Morwenna Oake | student ${student.id} | ${student.name}`;
    for (const student of [first!, first!, second!, first!]) await read(student);
    expect(await noted()).toEqual([told(first!), told(second!)]);
    pass(16);
    await read(first!);
    expect(await noted()).toEqual([told(first!), told(second!), told(first!)]);
  });
});

describe('the log', () => {
  it('holds together over all that was done', async () => {
    const body = await checkLog(registrar);
    expect(body).toMatchObject({ state: 'whole', faultAt: null });
    expect(body.entries).toBeGreaterThan(60);
  });

  it.each([
    ['an altered entry', (id: number) => `UPDATE change_log SET after = '{"label": "A"}' WHERE id = ${id}`, 0],
    ['a removed entry', (id: number) => `DELETE FROM change_log WHERE id = ${id}`, 1],
  ])('shows %s', async (_what, tamper, offset) => {
    const { rows } = await server.database.pool.query<{ id: number }>(
      `SELECT id FROM change_log ORDER BY id OFFSET 10 LIMIT 2`,
    );
    const client = await server.database.pool.connect();
    const [kept] = (await client.query('SELECT * FROM change_log WHERE id = $1', [rows[0]!.id])).rows as {
      after: unknown;
    }[];
    await client.query(tamper(rows[0]!.id));
    client.release();
    const body = await checkLog(registrar);
    expect(body).toMatchObject({ state: 'broken', faultAt: rows[offset]!.id });
    await server.database.pool.query(`UPDATE change_log SET after = $2 WHERE id = $1`, [
      rows[0]!.id,
      JSON.stringify(kept!.after),
    ]);
  });
});
