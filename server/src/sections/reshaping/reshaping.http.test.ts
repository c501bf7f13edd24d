import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { SheetListReply, SheetReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import type {
  MergeSectionsPreviewReply,
  MovedReply,
  SectionsReply,
  SplitSectionPreviewReply,
} from '#contract/sections';
import { checkLog } from '../../../test/check-log.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
/** Two sections of one course in one period, and one of another course. */
let one: number;
let two: number;
let stranger: number;
const day = '2026-01-12';

const query = async <Row = { id: number }>(text: string, values: readonly unknown[] = []) =>
  (await server.database.pool.query(text, [...values])).rows as Row[];
const everything = async () => {
  const tables = ['sections', 'section_co_teachers', 'enrollments', 'assignments', 'grades', 'scores', 'moved_work'];
  const found = await Promise.all(
    tables.map((table) => {
      const apart = table === 'section_co_teachers' ? "- 'id' " : '';
      return query(`SELECT to_jsonb(t) - 'created_at' ${apart}AS row FROM ${table} t ORDER BY 1`);
    }),
  );
  return JSON.stringify(found);
};
const sectionOf = async (id: number) =>
  (await registrar.get<SectionsReply>('/schools/1/sections?period=4')).body.sections.find((each) => each.id === id)!;
/** What is computed for each student of a section, as its sheet has it. */
async function computedIn(section: number) {
  const [list] = (await registrar.get<SheetListReply[]>('/grade-sheets?period=4')).body;
  const { body } = await registrar.get<SheetReply>(`/grade-sheets/${section}/${list!.itemId}/4`);
  return new Map(body.rows.map(({ student, computed }) => [student, computed]));
}
const undo = (change: number | null, client = registrar) => client.send<Problem>('POST', `/changes/${change}/undo`);

beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  const found = await query<{ one: number; two: number }>(`
    SELECT s.id AS one, o.id AS two FROM sections s
    JOIN sections o ON o.course_id = s.course_id AND o.period_id = s.period_id AND o.id > s.id
    JOIN courses c ON c.id = s.course_id
    WHERE c.school_id = 1 AND s.period_id = 1 AND EXISTS (SELECT 1 FROM enrollments e JOIN grades g ON g.enrollment_id = e.id
      WHERE e.section_id = s.id AND g.period_id = 4) AND EXISTS (SELECT 1 FROM assignments a JOIN scores x ON x.assignment_id = a.id
      WHERE a.section_id = s.id AND a.period_id = 4)
      AND NOT EXISTS (SELECT 1 FROM enrollments a JOIN enrollments b ON b.student_id = a.student_id
        WHERE a.section_id = s.id AND b.section_id = o.id) ORDER BY 1, 2 LIMIT 1`);
  [one, two] = [found[0]!.one, found[0]!.two];
  [{ id: stranger }] = (await query(
    `SELECT o.id FROM sections s JOIN sections o ON o.course_id <> s.course_id AND o.period_id = s.period_id
     WHERE s.id = $1 ORDER BY 1 LIMIT 1`,
    [one],
  )) as [{ id: number }];
});
afterAll(() => server.stop());

describe('sections that become one', () => {
  const request = (over: object = {}) => ({
    sectionIds: [one],
    intoId: two,
    enteredOn: day,
    teachersStay: true,
    ...over,
  });
  const preview = <Body = MergeSectionsPreviewReply>(over: object = {}) =>
    registrar.send<Body>('POST', '/schools/1/sections/merge/preview', request(over));
  const merge = <Body = MovedReply>(previewId: string, over: object = {}) =>
    registrar.send<Body>('POST', '/schools/1/sections/merge', { ...request(over), previewId });

  it('bring their students, grades and teachers together, end the day before, and come apart again as they were', async () => {
    const before = await everything();
    const [was, is] = [await sectionOf(one), await sectionOf(two)];
    const { status, body } = await preview();
    expect(status).toBe(200);
    expect(body).toMatchObject({ into: is.name, lastDay: '2026-01-11', ending: [was.name] });
    expect([body.rows.length, body.staying]).toEqual([was.staying, was.staying + is.staying]);
    expect(await everything()).toBe(before);
    const [grades] = await query<{ count: string }>(
      `SELECT count(*) FROM grades g JOIN enrollments e ON e.id = g.enrollment_id WHERE e.section_id = $1 AND g.period_id = 4
       AND e.withdrawn_on IS NULL`,
      [one],
    );
    const [more] = await query<{ count: string }>(
      `SELECT count(*) FROM grades g JOIN enrollments e ON e.id = g.enrollment_id WHERE e.section_id = $1 AND g.period_id = 4`,
      [two],
    );
    const merged = await merge(body.previewId);
    expect([merged.status, merged.body]).toEqual([200, { moved: was.staying }]);
    const [left, kept] = [await sectionOf(one), await sectionOf(two)];
    expect([left.staying, left.cells.endsOn]).toEqual([0, '2026-01-11']);
    expect([kept.staying, kept.cells.teacher]).toEqual([was.staying + is.staying, is.cells.teacher]);
    expect([is.cells.teacher, ...kept.cells.coTeachers.split('; ')]).toContain(was.cells.teacher);
    const [after] = await query<{ count: string }>(
      `SELECT count(*) FROM grades g JOIN enrollments e ON e.id = g.enrollment_id WHERE e.section_id = $1 AND g.period_id = 4`,
      [two],
    );
    expect(Number(after!.count)).toBe(Number(grades!.count) + Number(more!.count));
    expect((await undo(merged.change)).status).toBe(200);
    expect(await everything()).toBe(before);
    await checkLog(registrar);
  });

  it('bring assignments that only they have, for those who come with scores of them, and count the same', async () => {
    const [own] = await query(
      `INSERT INTO assignments (section_id, period_id, category_id, name, possible, due_on, is_extra, is_counted, is_published)
       SELECT section_id, period_id, category_id, 'Only here', 20, due_on, false, true, true FROM assignments a
       WHERE section_id = $1 AND period_id = 4 AND given_to IS NULL AND EXISTS (SELECT 1 FROM categories g
         WHERE g.id = a.category_id AND g.section_id IS NULL) ORDER BY id LIMIT 1 RETURNING id`,
      [one],
    );
    const scored = await query<{ enrollment_id: number }>(
      `INSERT INTO scores (assignment_id, enrollment_id, points) SELECT $1, id, 3 FROM enrollments
       WHERE section_id = $2 AND withdrawn_on IS NULL ORDER BY id LIMIT 2 RETURNING enrollment_id`,
      [own!.id, one],
    );
    await query(
      `INSERT INTO assignments (section_id, period_id, category_id, name, possible, due_on, is_extra, is_counted, is_published)
       SELECT section_id, period_id, category_id, 'Nobody has a score', 20, due_on, false, true, true FROM assignments WHERE id = $1`,
      [own!.id],
    );
    const [unlike] = await query<{ count: number }>(
      `SELECT count(DISTINCT a.id)::int AS count FROM assignments a JOIN scores x ON x.assignment_id = a.id
       JOIN enrollments e ON e.id = x.enrollment_id AND e.withdrawn_on IS NULL
       WHERE a.section_id = $1 AND a.period_id >= 4 AND NOT EXISTS (SELECT 1 FROM assignments b WHERE b.section_id = $2
         AND b.period_id = a.period_id AND b.possible = a.possible AND lower(b.name) = lower(a.name))`,
      [one, two],
    );
    const before = await everything();
    const was = await computedIn(one);
    const stay = await computedIn(two);
    const { body } = await preview();
    expect([body.brought, body.rows.some(({ left }) => left > 0)]).toEqual([unlike!.count, false]);
    const merged = await merge(body.previewId);
    expect(merged.status).toBe(200);
    const came = await query(
      `SELECT n.id FROM enrollments n JOIN enrollments o ON o.student_id = n.student_id AND o.section_id = $1 AND o.withdrawn_on = '2026-01-11'
       WHERE n.section_id = $2 ORDER BY 1`,
      [one, two],
    );
    const copies = await query<{ id: number; name: string; given_to: number[] }>(
      `SELECT id, name, given_to FROM assignments WHERE section_id = $1 AND name IN ('Only here', 'Nobody has a score')`,
      [two],
    );
    expect(copies.map(({ name, given_to }) => [name, given_to.toSorted((a, b) => a - b)])).toEqual([
      ['Only here', came.map(({ id }) => id)],
    ]);
    const scores = await query<{ count: number }>('SELECT count(*)::int FROM scores WHERE assignment_id = $1', [
      copies[0]!.id,
    ]);
    expect(scores[0]!.count).toBe(scored.length);
    // Who came has the same number as before, and so have those who were there.
    const now = await computedIn(two);
    const staying = body.rows.map(({ student }) => student);
    expect(staying.map((student) => now.get(student))).toEqual(staying.map((student) => was.get(student)));
    expect([...stay.keys()].map((student) => now.get(student))).toEqual([...stay.values()]);
    expect((await undo(merged.change)).status).toBe(200);
    expect(await everything()).toBe(before);
    await query(`DELETE FROM scores WHERE assignment_id = $1`, [own!.id]);
    await query(`DELETE FROM assignments WHERE section_id = $1 AND name IN ('Only here', 'Nobody has a score')`, [one]);
  });

  it('do not put a score where it would not count: into an assignment that is given to some students alone', async () => {
    const [like] = await query(
      `SELECT b.id FROM assignments a JOIN assignments b ON lower(b.name) = lower(a.name) AND b.possible = a.possible
         AND b.period_id = a.period_id AND b.section_id = $2
       JOIN scores x ON x.assignment_id = a.id JOIN enrollments e ON e.id = x.enrollment_id AND e.withdrawn_on IS NULL
       WHERE a.section_id = $1 AND a.period_id = 4 AND b.given_to IS NULL ORDER BY 1 LIMIT 1`,
      [one, two],
    );
    const { body: before } = await preview();
    await query(
      `UPDATE assignments SET given_to = (SELECT jsonb_agg(id) FROM enrollments WHERE section_id = $2) WHERE id = $1`,
      [like!.id, two],
    );
    const { body } = await preview();
    expect(body.brought).toBe(before.brought + 1);
    await query('UPDATE assignments SET given_to = NULL WHERE id = $1', [like!.id]);
  });

  it('leave the teachers out where they are to be left out', async () => {
    const is = await sectionOf(two);
    const { body } = await preview({ teachersStay: false });
    const merged = await merge(body.previewId, { teachersStay: false });
    expect((await sectionOf(two)).cells.coTeachers).toBe(is.cells.coTeachers);
    await undo(merged.change);
  });

  it('before they begin are one from the beginning: the others go, and come back by one step', async () => {
    const [next] = await query<{ id: number; course_id: number }>(
      'SELECT id, course_id FROM sections WHERE period_id = 5 ORDER BY id LIMIT 1',
    );
    const [empty] = await query(
      `INSERT INTO sections (course_id, number, teacher_id, period_id) SELECT course_id, 99, teacher_id, 5 FROM sections WHERE id = $1 RETURNING id`,
      [next!.id],
    );
    const seats = await query(
      `INSERT INTO enrollments (section_id, student_id, entered_on) SELECT $1, id, '2026-01-26' FROM people p
       WHERE kind = 'student' AND school_id = 1 AND NOT EXISTS (SELECT 1 FROM enrollments e WHERE e.student_id = p.id AND e.section_id = $2)
       ORDER BY id LIMIT 3 RETURNING id`,
      [empty!.id, next!.id],
    );
    const before = await everything();
    const over = { sectionIds: [empty!.id], intoId: next!.id, enteredOn: '2026-01-26' };
    const { body } = await preview(over);
    expect([body.ending, body.removed.length, body.rows.map((row) => [row.isReseated, row.obstacle])]).toEqual([
      [],
      1,
      Array.from({ length: 3 }, () => [true, null]),
    ]);
    const merged = await merge(body.previewId, over);
    expect([merged.status, merged.body]).toEqual([200, { moved: 3 }]);
    const now = await query<{ section_id: number; entered_on: string; withdrawn_on: string | null }>(
      'SELECT section_id, entered_on::text, withdrawn_on FROM enrollments WHERE id = ANY($1)',
      [seats.map(({ id }) => id)],
    );
    expect(now).toEqual(
      Array.from({ length: 3 }, () => ({ section_id: next!.id, entered_on: '2026-01-26', withdrawn_on: null })),
    );
    expect(await query('SELECT id FROM sections WHERE id = $1', [empty!.id])).toEqual([]);
    expect((await undo(merged.change)).status).toBe(200);
    expect(await everything()).toBe(before);
    // What hangs on a section keeps it.
    await query(
      `INSERT INTO assignments (section_id, period_id, category_id, name, possible, due_on)
       SELECT $1, id, (SELECT min(id) FROM categories WHERE school_id = 1 AND section_id IS NULL), 'Warm-up', 5, starts_on FROM periods WHERE parent_id = 5 ORDER BY id LIMIT 1`,
      [empty!.id],
    );
    const refused = await preview<Problem>(over);
    expect([refused.status, refused.body.errors[0]?.field]).toEqual([422, 'enteredOn']);
  });

  it.each([
    ['a section of another course', () => ({ sectionIds: [stranger] }), 'sectionIds'],
    ['the section that stays itself', () => ({ sectionIds: [two] }), 'sectionIds'],
    ['a day on which nobody has sat yet', () => ({ enteredOn: '2025-09-01' }), 'enteredOn'],
    ['a day that there is not', () => ({ enteredOn: '2026-02-30' }), 'enteredOn'],
  ])('are not %s', async (_case, over, field) => {
    const { status, body } = await preview<Problem>(over());
    expect([status, body.errors[0]?.field]).toEqual([422, field]);
  });

  it('are refused where anything moved since they were looked at', async () => {
    const { body } = await preview();
    const [seat] = await query('SELECT id FROM enrollments WHERE section_id = $1 AND withdrawn_on IS NULL LIMIT 1', [
      one,
    ]);
    await query(`UPDATE enrollments SET withdrawn_on = '2026-01-05' WHERE id = $1`, [seat!.id]);
    const refused = await merge<Problem>(body.previewId);
    expect([refused.status, refused.body.code]).toEqual([409, 'preview-changed']);
    await query('UPDATE enrollments SET withdrawn_on = NULL WHERE id = $1', [seat!.id]);
  });
});

describe('a section that becomes two', () => {
  let half: number[];
  let teacherId: number;
  const request = (over: object = {}) => ({
    sectionId: one,
    enrollmentIds: half,
    teacherId,
    seats: 24,
    enteredOn: day,
    ...over,
  });
  const preview = <Body = SplitSectionPreviewReply>(over: object = {}) =>
    registrar.send<Body>('POST', '/schools/1/sections/split/preview', request(over));
  const split = <Body = MovedReply>(previewId: string, over: object = {}, client = registrar) =>
    client.send<Body>('POST', '/schools/1/sections/split', { ...request(over), previewId });

  beforeAll(async () => {
    const rows = await query('SELECT id FROM enrollments WHERE section_id = $1 AND withdrawn_on IS NULL ORDER BY id', [
      one,
    ]);
    half = rows.slice(0, Math.floor(rows.length / 2)).map(({ id }) => id);
    [{ id: teacherId }] = (await query(
      `SELECT id FROM people WHERE kind = 'staff' AND school_id = 1 ORDER BY id DESC LIMIT 1`,
    )) as [{ id: number }];
  });

  it('gives half of its students the same book with their scores and grades, and is whole again once undone', async () => {
    const before = await everything();
    const computed = await computedIn(one);
    const { status, body } = await preview();
    expect(status).toBe(200);
    const scores = body.rows.reduce((sum, row) => sum + row.scores, 0);
    expect([body.rows.length, body.lastDay, scores > 0]).toEqual([half.length, '2026-01-11', true]);
    expect(await everything()).toBe(before);
    const [assignments] = await query<{ count: number }>(
      'SELECT count(*)::int FROM assignments WHERE section_id = $1 AND period_id >= 4',
      [one],
    );
    expect(body.assignments).toBeLessThanOrEqual(assignments!.count);
    const made = await split(body.previewId);
    expect([made.status, made.body.moved]).toEqual([200, half.length]);
    const [section] = await query<{ id: number; seats: number; starts_on: string; teacher_id: number }>(
      'SELECT id, seats, starts_on::text, teacher_id FROM sections ORDER BY id DESC LIMIT 1',
    );
    expect(section).toMatchObject({ seats: 24, starts_on: day, teacher_id: teacherId });
    const there = await sectionOf(section!.id);
    expect([there.name, there.staying]).toEqual([body.name, half.length]);
    // Whoever moved has the same scores there, and so the same number.
    const now = await computedIn(section!.id);
    expect([...now]).toEqual([...now.keys()].map((student) => [student, computed.get(student)]));
    expect(now.size).toBe(half.length);
    expect((await undo(made.change)).status).toBe(200);
    expect(await everything()).toBe(before);
    await checkLog(registrar);
  });

  it('is undone and made again by those who have a say in its school alone', async () => {
    const [registrarOfOne] = await query<{ username: string }>(
      `SELECT a.username FROM accounts a JOIN account_roles r ON r.account_id = a.id WHERE r.role = 'registrar' AND r.school_id = 1`,
    );
    if (!registrarOfOne)
      await query(
        `UPDATE account_roles SET role = 'registrar', school_id = 1 WHERE account_id = (SELECT id FROM accounts WHERE username = 'harun')`,
      );
    const client = await server.as(registrarOfOne?.username ?? 'harun');
    const { body } = await preview();
    const made = await split(body.previewId, {}, client);
    expect(made.status).toBe(200);
    const undone = await undo(made.change, client);
    expect(undone.status).toBe(200);
    const again = await undo(undone.change, client);
    expect(again.status).toBe(200);
    expect((await undo(again.change)).status).toBe(200);
  });

  it('stays as it is once its new teacher has worked in the other half', async () => {
    const { body } = await preview();
    const made = await split(body.previewId);
    await query(`UPDATE scores s SET version = s.version + 1 FROM assignments a WHERE a.id = s.assignment_id
      AND a.section_id = (SELECT max(id) FROM sections)`);
    const refused = await undo(made.change);
    expect([refused.status, refused.body.code]).toEqual([409, 'move-built-on']);
  });

  it.each([
    [
      'a student of another section',
      async () => {
        const [other] = await query('SELECT id FROM enrollments WHERE section_id = $1 LIMIT 1', [two]);
        return { enrollmentIds: [other!.id] };
      },
      'enrollmentIds',
    ],
    ['room for nobody', () => Promise.resolve({ seats: 0 }), 'seats'],
  ])('does not give away %s', async (_case, over, field) => {
    const { body } = await preview<Problem>(await over());
    expect(body.errors[0]?.field).toBe(field);
  });
});
