import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { MovedReply, MovePreviewReply } from '#contract/sections';
import type { SheetListReply, SheetReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import { checkLog } from '../../../test/check-log.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let seat: { id: number; section_id: number; student_id: number };
let to: number;
const day = '2026-01-12';

const query = async <Row = { id: number }>(text: string, values: readonly unknown[] = []) =>
  (await server.database.pool.query(text, [...values])).rows as Row[];
const preview = <Body = MovePreviewReply>(over: object = {}, client = registrar) =>
  client.send<Body>('POST', '/schools/1/moves/preview', {
    enrollmentIds: [seat.id],
    sectionId: to,
    enteredOn: day,
    ...over,
  });
const move = <Body = MovedReply>(previewId: string, over: object = {}, client = registrar) =>
  client.send<Body>('POST', '/schools/1/moves', {
    enrollmentIds: [seat.id],
    sectionId: to,
    enteredOn: day,
    previewId,
    ...over,
  });
const everything = async () => {
  const found = await Promise.all(
    ['enrollments', 'grades', 'scores', 'moved_work', 'transcript_entries'].map((table) =>
      query(`SELECT to_jsonb(t) - 'created_at' AS row FROM ${table} t ORDER BY 1`),
    ),
  );
  return JSON.stringify(found);
};

beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  // A student with a grade in the open quarter and one in the sealed one, in a course that has another section without them.
  [seat] = (await query<typeof seat>(`
    SELECT e.* FROM enrollments e JOIN sections s ON s.id = e.section_id JOIN courses c ON c.id = s.course_id
    WHERE c.school_id = 1 AND e.withdrawn_on IS NULL AND e.entered_on = '2025-09-01'
      AND EXISTS (SELECT 1 FROM grades g WHERE g.enrollment_id = e.id AND g.period_id = 4)
      AND EXISTS (SELECT 1 FROM grades g WHERE g.enrollment_id = e.id AND g.period_id = 3)
      AND EXISTS (SELECT 1 FROM scores o WHERE o.enrollment_id = e.id)
      AND EXISTS (SELECT 1 FROM sections o WHERE o.course_id = s.course_id AND o.period_id = s.period_id AND o.id <> s.id)
    ORDER BY e.id LIMIT 1`)) as [typeof seat];
  [{ id: to }] = (await query(
    `SELECT o.id FROM sections s JOIN sections o ON o.course_id = s.course_id AND o.period_id = s.period_id AND o.id <> s.id
     WHERE s.id = $1 AND o.id NOT IN (SELECT section_id FROM enrollments WHERE student_id = $2) ORDER BY o.id LIMIT 1`,
    [seat.section_id, seat.student_id],
  )) as [{ id: number }];
});
afterAll(() => server.stop());

describe('a student who moves to another section', () => {
  it('is shown what goes along before anything is written', async () => {
    const before = await everything();
    const { status, body } = await preview();
    expect([status, body.lastDay]).toEqual([200, '2026-01-11']);
    expect(body.rows).toMatchObject([{ enrollmentId: seat.id, grades: expect.any(Number) as number, obstacle: null }]);
    expect(body.rows[0]!.grades).toBeGreaterThan(0);
    expect(await everything()).toBe(before);
  });

  it('takes the grades of open periods and the scores of the same assignments along, and goes back as it was', async () => {
    const [before, { body }] = [await everything(), await preview()];
    const [list] = (await registrar.get<SheetListReply[]>('/grade-sheets?period=4')).body;
    const rowIn = async (section: number) =>
      (await registrar.get<SheetReply>(`/grade-sheets/${section}/${list!.itemId}/4`)).body.rows.find(
        ({ student }) => student === body.rows[0]!.student,
      );
    const posted = (await rowIn(seat.section_id))!;
    const sealed = await query('SELECT id FROM grades WHERE enrollment_id = $1 AND period_id = 3', [seat.id]);
    const moved = await move(body.previewId);
    expect([moved.status, moved.body.moved]).toEqual([200, 1]);
    const there = (await rowIn(to))!;
    expect([posted.version > 0, there.mark]).toEqual([true, posted.mark]);
    expect(await query('SELECT withdrawn_on::text AS day FROM enrollments WHERE id = $1', [seat.id])).toEqual([
      { day: '2026-01-11' },
    ]);
    // What is sealed stays with the section that it was posted in.
    expect(await query('SELECT id FROM grades WHERE enrollment_id = $1', [seat.id])).toEqual(sealed);
    const scores = await query('SELECT assignment_id AS id FROM scores WHERE enrollment_id = $1', [there.enrollmentId]);
    expect(scores.length).toBe(body.rows[0]!.scores);
    expect((await registrar.send('POST', `/changes/${moved.change}/undo`)).status).toBe(200);
    expect(await everything()).toBe(before);
    expect(await checkLog(registrar)).toMatchObject({ state: 'whole' });
  });

  it('does not go back by one step once there is more in the new section', async () => {
    const { body } = await preview();
    const moved = await move(body.previewId);
    const [came] = await query('SELECT id FROM enrollments WHERE section_id = $1 AND student_id = $2', [
      to,
      seat.student_id,
    ]);
    await query(
      `INSERT INTO scores (assignment_id, enrollment_id, points, version)
       SELECT id, $1, 1, 2 FROM assignments WHERE section_id = $2 AND id NOT IN (SELECT assignment_id FROM scores WHERE enrollment_id = $1) LIMIT 1`,
      [came!.id, to],
    );
    const stuck = await registrar.send<Problem>('POST', `/changes/${moved.change}/undo`);
    const expected = (await query('SELECT 1 FROM scores WHERE enrollment_id = $1 AND version = 2', [came!.id])).length;
    expect([stuck.status, expected > 0]).toEqual([expected > 0 ? 409 : 200, expected > 0]);
    await query('DELETE FROM scores WHERE enrollment_id = $1 AND version = 2', [came!.id]);
    await registrar.send('POST', `/changes/${moved.change}/undo`);
  });

  it('does not go back by one step once a grade that went along was changed', async () => {
    const moved = await move((await preview()).body.previewId);
    const ofThere = `enrollment_id = (SELECT id FROM enrollments WHERE section_id = $1 AND student_id = $2)`;
    const place = [to, seat.student_id];
    await query(`UPDATE grades SET version = version + 1 WHERE ${ofThere}`, place);
    const stuck = await registrar.send<Problem>('POST', `/changes/${moved.change}/undo`);
    expect([stuck.status, stuck.body.code]).toEqual([409, 'move-built-on']);
    await query(`UPDATE grades SET version = version - 1 WHERE ${ofThere}`, place);
    expect((await registrar.send('POST', `/changes/${moved.change}/undo`)).status).toBe(200);
  });

  it.each([
    ['to the section where they sit', () => ({ sectionId: seat.section_id }), 'same-section'],
    ['on a day before they came', () => ({ enteredOn: '2025-08-01' }), 'section-not-running'],
    ['on a day after the section ended', () => ({ enteredOn: '2026-08-01' }), 'section-not-running'],
  ] as const)('does not move %s, and is told why', async (_what, over, code) => {
    const { body } = await preview(over());
    expect(body.rows[0]!.obstacle).toMatchObject({ code });
    const refused = await move<Problem>(body.previewId, over());
    expect([refused.status, refused.body.code]).toEqual([409, 'cannot-move']);
  });

  it.each([
    ['no day', { enteredOn: '2026-02-31' }, 422],
    ['nobody', { enrollmentIds: [] }, 422],
    ['a seat that there is not', { enrollmentIds: [999_999] }, 404],
    ['a section that there is not', { sectionId: 999_999 }, 404],
  ])('with %s is refused', async (_what, over, status) => {
    expect((await preview<Problem>(over)).status).toBe(status);
  });

  it('is not moved where it is otherwise by now, and not from another school or by a viewer', async () => {
    const { body } = await preview();
    await query(`UPDATE enrollments SET entered_on = '2025-09-02' WHERE id = $1`, [seat.id]);
    await query(`DELETE FROM scores WHERE ctid IN (SELECT ctid FROM scores WHERE enrollment_id = $1)`, [seat.id]);
    const changed = await move<Problem>(body.previewId);
    expect([200, 409]).toContain(changed.status);
    expect(changed.body.code === 'preview-changed' || body.rows[0]!.scores === 0).toBe(true);
    const [elsewhere] = await query(
      `SELECT e.id FROM enrollments e JOIN sections s ON s.id = e.section_id JOIN courses c ON c.id = s.course_id WHERE c.school_id = 2 LIMIT 1`,
    );
    expect((await preview<Problem>({ enrollmentIds: [elsewhere!.id] })).status).toBe(404);
    expect((await preview<Problem>({}, await server.as('sunniva'))).status).toBe(403);
  });
});
