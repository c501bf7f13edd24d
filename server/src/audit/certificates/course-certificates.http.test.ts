import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AuditReply, CourseCertificatesReply, CourseStandingReply, RuleSettingsReply } from '#contract/audit';
import type { SheetListReply, SheetReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import { auditNow } from '../../../test/audit-now.js';
import { blockingOf } from '../../../test/settle-period.js';
import { changeOf, openPeriod, quarterGrade } from '../../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let audited: AuditReply;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  audited = (await auditNow(registrar, openPeriod)).body;
});
afterAll(() => server.stop());

const certify = (courseIds: readonly number[], client = registrar) =>
  client.send<AuditReply & Problem>('POST', '/audit/certificates', { periodId: openPeriod, courseIds, note: 'Early.' });
const state = async () =>
  (await registrar.get<CourseCertificatesReply>(`/audit/certificates?period=${openPeriod}`)).body;
const course = async (is: (each: CourseStandingReply) => boolean) => (await state()).courses.filter(is);
const lists = async () => (await registrar.get<SheetListReply[]>(`/grade-sheets?period=${openPeriod}`)).body;

/** Another comment for the first student of a course, a minute later; answers what takes it back. */
async function changeOneGradeOf({ code }: CourseStandingReply): Promise<() => Promise<unknown>> {
  server.clock.setTo(new Date(server.clock.now().getTime() + 60_000));
  const [list] = await lists();
  const { sectionId } = list!.sheets.find((each) => each.courseCode === code)!;
  const path = `/grade-sheets/${sectionId}/${quarterGrade}/${openPeriod}`;
  const { rows } = (await registrar.get<SheetReply>(path)).body;
  const row = rows.find(({ withdrawnOn, mark }) => withdrawnOn === null && mark.label)!;
  const { status, change } = await registrar.send('PUT', path, { changes: [changeOf(row, { comment: 'Looked at.' })] });
  expect(status).toBe(200);
  return () => registrar.send('POST', `/changes/${change}/undo`);
}

describe('courses of a period that is not settled yet', () => {
  it('each have what was found in them, which together is what was found about courses', async () => {
    const { courses } = await state();
    const sum = (of: 'blocking' | 'open') => courses.reduce((all, each) => all + each[of], 0);
    const ofCourses = audited.run!.findings.filter((each) => each.course !== null);
    expect(sum('blocking')).toBe(blockingOf(audited).length);
    // What is about no course, as an item, concerns each.
    const elsewhere = audited.run!.findings.length - ofCourses.length;
    expect(sum('open')).toBe(ofCourses.length + elsewhere * courses.length);
    expect(courses.map(({ title }) => title)).toEqual(
      courses.map(({ title }) => title).toSorted((a, b) => a.localeCompare(b)),
    );
  });

  it('are certified where nothing blocks in them, whatever blocks elsewhere', async () => {
    const [first, second] = await course(({ blocking }) => blocking === 0);
    expect((await certify([second!.id, first!.id])).status).toBe(200);
    const { certificates, courses } = await state();
    expect(courses.filter(({ isCertified }) => isCertified)).toHaveLength(2);
    expect(certificates).toMatchObject([{ by: 'Morwenna Oake', note: 'Early.', broken: [] }]);
    expect(certificates[0]!.courses).toEqual([
      expect.stringContaining(first!.code),
      expect.stringContaining(second!.code),
    ]);
    const sheets = (await lists()).flatMap((each) => each.sheets);
    const expected = sheets.filter(({ courseCode }) => [first!.code, second!.code].includes(courseCode));
    expect(certificates[0]!.grades).toBeGreaterThanOrEqual(expected.reduce((sum, each) => sum + each.expected, 0));
  });

  it('are refused where something blocks in one of them, with how much', async () => {
    const [clean] = await course(({ blocking }) => blocking === 0);
    const [held] = await course(({ blocking }) => blocking > 0);
    const { status, body } = await certify([clean!.id, held!.id]);
    expect([status, body.code, body.detail]).toEqual([
      409,
      'courses-block',
      expect.stringMatching(new RegExp(`^${held!.blocking} finding`)),
    ]);
  });

  it('are refused where they report nothing here, twice the same, and to whoever may not audit', async () => {
    const [clean] = await course(({ blocking }) => blocking === 0);
    const elsewhere = await server.database.pool.query<{ id: number }>(
      'SELECT id FROM courses WHERE school_id <> (SELECT school_id FROM periods WHERE id = $1) LIMIT 1',
      [openPeriod],
    );
    expect((await certify([elsewhere.rows[0]!.id])).body).toMatchObject({
      code: 'fields-wrong',
      errors: [{ field: 'courseIds', detail: 'courses that report something in Quarter 2' }],
    });
    expect((await certify([clean!.id, clean!.id])).status).toBe(422);
    expect((await certify([clean!.id], await server.as('harun'))).status).toBe(403);
  });

  it('do not stand for all of the school: the period has no certificate and is not sealed', async () => {
    const { body } = await registrar.get<AuditReply>(`/audit?period=${openPeriod}`);
    expect(body.certificate).toBeNull();
    expect((await registrar.get(`/audit/certificate?period=${openPeriod}`)).status).toBe(404);
    const { status } = await registrar.send<Problem>('POST', '/seals', { periodId: openPeriod });
    expect(status).toBe(409);
  });
});

describe('the certificate of chosen courses', () => {
  it('knows their grades, and only theirs, by a hash that anybody makes of the file', async () => {
    const { id, gradesHash } = (await state()).certificates[0]!;
    const { body } = await registrar.get<Uint8Array>(`/audit/grades-file?period=${openPeriod}&id=${id}`, 'bytes');
    expect(createHash('sha256').update(body).digest('hex')).toBe(gradesHash);
    const lines = new TextDecoder().decode(body).trimEnd().split('\n');
    const { rows } = await server.database.pool.query<{ id: number; title: string }>(
      `SELECT DISTINCT c.id, c.title FROM enrollments e JOIN sections s ON s.id = e.section_id JOIN courses c ON c.id = s.course_id
       WHERE e.id = ANY($1) ORDER BY c.title`,
      [lines.map((line) => (JSON.parse(line) as number[])[0])],
    );
    const { rows: kept } = await server.database.pool.query<{ course_ids: number[] }>(
      'SELECT course_ids FROM audit_certificates WHERE id = $1',
      [id],
    );
    expect(rows.map((each) => each.id).toSorted((a, b) => a - b)).toEqual(kept[0]!.course_ids);
  });

  it('comes on paper, and belongs to its period', async () => {
    const { id } = (await state()).certificates[0]!;
    const { status, body } = await registrar.get<Uint8Array>(
      `/audit/certificate?period=${openPeriod}&id=${id}`,
      'bytes',
    );
    expect([status, new TextDecoder().decode(body.slice(0, 5))]).toEqual([200, '%PDF-']);
    expect((await registrar.get(`/audit/certificate?period=1&id=${id}`)).status).toBe(404);
  });

  it('holds while grades of other courses change, and breaks with one of its own until it is as it was', async () => {
    const [own, , other] = await course(({ blocking }) => blocking === 0);
    const takeBackOther = await changeOneGradeOf(other!);
    expect((await state()).certificates[0]!.broken).toEqual([]);
    expect((await certify([own!.id])).status).toBe(200);
    expect((await certify([other!.id])).body.code).toBe('audit-outdated');
    const takeBack = await changeOneGradeOf(own!);
    const after = await state();
    expect(after.certificates.map(({ broken }) => broken)).toEqual([['grades'], ['grades']]);
    expect(after.courses.filter(({ changed }) => changed > 0).map(({ id }) => id)).toEqual(
      after.courses.map(({ id }) => id).filter((id) => [own!.id, other!.id].includes(id)),
    );
    await takeBack();
    await takeBackOther();
    expect((await state()).certificates.map(({ broken }) => broken)).toEqual([[], []]);
  });

  it('is replaced by another one of the same courses, in whatever order they are named', async () => {
    await auditNow(registrar, openPeriod);
    const [first, second] = await course(({ blocking }) => blocking === 0);
    await certify([first!.id, second!.id]);
    const { certificates } = await state();
    expect(certificates.map(({ courses }) => courses.length)).toEqual([2, 1]);
  });

  it('breaks where a rule leaves one of its courses alone, and not where it leaves another', async () => {
    const [first, second, other] = await course(({ blocking }) => blocking === 0);
    const leaveAlone = async (courses: readonly number[]) => {
      const { schoolRevision: revision } = (await registrar.get<RuleSettingsReply>('/audit/rules?school=1')).body;
      const rule = { ruleId: 'zero-posted', effect: null, threshold: null, exceptions: { departments: [], courses } };
      const { status, change } = await registrar.send('PUT', '/audit/rules/1', { rules: [rule], revision });
      expect(status).toBe(200);
      return () => registrar.send('POST', `/changes/${change}/undo`);
    };
    const broken = async () => (await state()).certificates.find(({ courses }) => courses.length === 2)!.broken;
    expect((await certify([first!.id, second!.id])).status).toBe(200);
    const undoOther = await leaveAlone([other!.id]);
    expect(await broken()).toEqual([]);
    await undoOther();
    const undoOwn = await leaveAlone([second!.id]);
    expect(await broken()).toEqual(['rules']);
    await undoOwn();
    expect(await broken()).toEqual([]);
  });
});
