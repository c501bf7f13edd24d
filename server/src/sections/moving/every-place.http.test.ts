import { afterAll, beforeAll, expect, it } from 'vitest';
import type { SheetListReply, SheetReply } from '#contract/posting';
import type { MovePreviewReply } from '#contract/sections';
import type { ReadinessReply, StudentRowReply, TranscriptReply } from '#contract/transcripts';
import { auditNow } from '../../../test/audit-now.js';
import { blockingOf } from '../../../test/settle-period.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const query = async <Row>(text: string, values: readonly unknown[] = []) =>
  (await server.database.pool.query(text, [...values])).rows as Row[];

/** What every place says of a student in the open quarter. */
async function everyPlace(studentId: number) {
  const transcript = (await registrar.get<TranscriptReply>(`/students/${studentId}/transcript`)).body;
  const row = (await registrar.get<StudentRowReply[]>('/student-list?school=1&period=4')).body.find(
    ({ id }) => id === studentId,
  )!;
  const audit = (await auditNow(registrar, 4)).body;
  const {
    expected,
    posted,
    students,
    entries: lines,
  } = (await registrar.get<ReadinessReply>('/seals/readiness?period=4')).body;
  return {
    transcript: transcript.periods.map(({ name, entries }) => ({
      name,
      entries: entries
        .map(({ courseTitle, mark, percent, creditsTried }) => [courseTitle, mark, percent, creditsTried].join(' '))
        .toSorted(),
    })),
    row,
    // What warns may differ: the grade book of the other section comes to something else.
    findings: blockingOf(audit)
      .filter((finding) => finding.studentId === studentId)
      .map(({ ruleId, mark }) => [ruleId, mark]),
    readiness: { expected, posted, students, lines },
  };
}

it('a student who moved is the same in every place: transcript, list, audit, readiness and sheet, and once in each', async () => {
  const [seat] = await query<{ id: number; student_id: number; section_id: number; to: number }>(`
    SELECT e.id, e.student_id, e.section_id, o.id AS to FROM enrollments e JOIN sections s ON s.id = e.section_id
    JOIN courses c ON c.id = s.course_id JOIN sections o ON o.course_id = s.course_id AND o.period_id = s.period_id AND o.id <> s.id
    WHERE c.school_id = 1 AND e.withdrawn_on IS NULL AND e.entered_on = '2025-09-01'
      AND EXISTS (SELECT 1 FROM grades g WHERE g.enrollment_id = e.id AND g.period_id = 4)
      AND NOT EXISTS (SELECT 1 FROM enrollments x WHERE x.section_id = o.id AND x.student_id = e.student_id)
    ORDER BY e.id, o.id LIMIT 1`);
  const before = await everyPlace(seat!.student_id);
  const request = { enrollmentIds: [seat!.id], sectionId: seat!.to, enteredOn: '2026-01-12' };
  const { body } = await registrar.send<MovePreviewReply>('POST', '/schools/1/moves/preview', request);
  const moved = await registrar.send('POST', '/schools/1/moves', { ...request, previewId: body.previewId });
  expect(moved.status).toBe(200);
  expect(await everyPlace(seat!.student_id)).toEqual(before);
  const [list] = (await registrar.get<SheetListReply[]>('/grade-sheets?period=4')).body;
  const rowIn = async (sectionId: number) =>
    (await registrar.get<SheetReply>(`/grade-sheets/${sectionId}/${list!.itemId}/4`)).body.rows.find(
      ({ studentId }) => studentId === seat!.student_id,
    );
  expect([(await rowIn(seat!.section_id))?.withdrawnOn, (await rowIn(seat!.to))?.withdrawnOn]).toEqual([
    '2026-01-11',
    null,
  ]);
  expect((await rowIn(seat!.section_id))?.mark).toMatchObject({ percent: null, label: null, code: null });
  await registrar.send('POST', `/changes/${moved.change}/undo`);
  expect(await everyPlace(seat!.student_id)).toEqual(before);
});

it('a semester counts what was posted in the section that the student left', async () => {
  const [semester, itemId] = [2, 102];
  const compositeIn = async (sectionId: number, studentId: number) =>
    (await registrar.get<SheetReply>(`/grade-sheets/${sectionId}/${itemId}/${semester}`)).body.rows.find(
      (row) => row.studentId === studentId && row.withdrawnOn === null,
    )?.composite;
  const seats = await query<{ id: number; student_id: number; section_id: number; to: number }>(`
    SELECT e.id, e.student_id, e.section_id, o.id AS to FROM enrollments e JOIN sections s ON s.id = e.section_id
    JOIN courses c ON c.id = s.course_id JOIN sections o ON o.course_id = s.course_id AND o.period_id = s.period_id AND o.id <> s.id
    WHERE c.school_id = 1 AND e.withdrawn_on IS NULL AND e.entered_on = '2025-09-01'
      AND (SELECT count(*) FROM grades g WHERE g.enrollment_id = e.id AND g.percent IS NOT NULL AND g.item_id IN (1, 101)) = 3
      AND NOT EXISTS (SELECT 1 FROM enrollments x WHERE x.section_id = o.id AND x.student_id = e.student_id)
    ORDER BY e.id, o.id LIMIT 5`);
  const [seat] = seats;
  const before = await compositeIn(seat!.section_id, seat!.student_id);
  expect(before).toMatchObject({ kind: 'value' });
  const request = { enrollmentIds: [seat!.id], sectionId: seat!.to, enteredOn: '2026-01-12' };
  const { body } = await registrar.send<MovePreviewReply>('POST', '/schools/1/moves/preview', request);
  const moved = await registrar.send('POST', '/schools/1/moves', { ...request, previewId: body.previewId });
  expect(moved.status).toBe(200);
  expect(await compositeIn(seat!.to, seat!.student_id)).toEqual(before);
  await registrar.send('POST', `/changes/${moved.change}/undo`);
});
