import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AttendanceImportReply, AttendanceListReply, RegisterReply } from '#contract/attendance';
import type { ChangeReply } from '#contract/changes';
import type { SheetListReply, SheetReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

/** Winter term of the college, which takes attendance; its term item. */
const [college, winter, termGrade] = [3, 23, 3];

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const query = async <Row extends object>(text: string, values: readonly unknown[] = []) =>
  (await server.database.pool.query<Row>(text, [...values])).rows;
const list = async () => (await registrar.get<AttendanceListReply>(`/attendance?period=${winter}`)).body;
const week = async (sectionId: number, day?: string) =>
  (await registrar.get<RegisterReply>(`/attendance/${sectionId}/${winter}${day ? `?day=${day}` : ''}`)).body;
const take = (sectionId: number, days: readonly object[]) =>
  registrar.send<RegisterReply & Problem>('PUT', `/attendance/${sectionId}/${winter}`, { days });
const aSection = async (at: number) => (await list()).sections[at]!;

it('the sections of a period stand with how far their attendance is taken', async () => {
  const { takesAttendance, today, sections } = await list();
  expect([takesAttendance, today]).toEqual([true, '2026-01-21']);
  const [counted] = await query<{ taken: number; last: string }>(
    `SELECT count(*)::int AS taken, max(day)::text AS last FROM registers WHERE section_id = $1 AND day BETWEEN '2026-01-05' AND '2026-03-27'`,
    [sections[0]!.sectionId],
  );
  expect(sections[0]).toMatchObject({ taken: counted!.taken, lastTaken: counted!.last, days: 13 });
});

describe('a register', () => {
  it('is taken with its exceptions, says who took it, and is undone as one step', async () => {
    const { sectionId } = await aSection(0);
    const before = await week(sectionId);
    const open = before.days.find(({ taken, day }) => taken === null && day <= before.today)!;
    const [first, second] = before.students;
    const absences = [
      { enrollmentId: first!.enrollmentId, kind: 'absent' },
      { enrollmentId: second!.enrollmentId, kind: 'late' },
    ];
    const { status, body, change } = await take(sectionId, [{ day: open.day, revision: open.revision, absences }]);
    expect(status).toBe(200);
    const after = body.days.find(({ day }) => day === open.day)!;
    expect(after.taken).toMatchObject({ by: 'Morwenna Oake' });
    const marks = body.students.map(({ absences: own, missed, of }) => [own[open.day as keyof typeof own], missed, of]);
    const were = before.students.map(({ missed, of }) => [missed, of]);
    expect(marks[0]).toEqual(['absent', were[0]![0]! + 1, were[0]![1]! + 1]);
    expect(marks[1]).toEqual(['late', were[1]![0], were[1]![1]! + 1]);
    const { body: recent } = await registrar.get<ChangeReply[]>('/changes/mine');
    expect(recent[0]!.action).toMatch(/^take the attendance of .+ on (Mon|Tues|Wednes|Thurs|Fri)day \d+ January 2026$/);
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect((await week(sectionId, open.day)).days).toEqual(before.days);
  });

  it('that somebody else took meanwhile is not written over', async () => {
    const { sectionId } = await aSection(1);
    const { days, today } = await week(sectionId);
    const open = days.find(({ taken, day }) => taken === null && day <= today)!;
    const body = [{ day: open.day, revision: open.revision, absences: [] }];
    expect((await take(sectionId, body)).status).toBe(200);
    expect((await take(sectionId, body)).status).toBe(409);
  });

  it.each<[string, (reply: RegisterReply) => object, string]>([
    ['a Sunday', () => ({ day: '2026-01-18', absences: [] }), 'days.0.day'],
    ['a day ahead', () => ({ day: '2026-01-22', absences: [] }), 'days.0.day'],
    ['a day of another term', () => ({ day: '2025-12-18', absences: [] }), 'days.0.day'],
    [
      'the same student twice',
      ({ students: [one] }) => ({
        day: '2026-01-20',
        absences: [
          { enrollmentId: one!.enrollmentId, kind: 'late' },
          { enrollmentId: one!.enrollmentId, kind: 'absent' },
        ],
      }),
      'days.0.absences',
    ],
    [
      'an unknown word',
      ({ students: [one] }) => ({ day: '2026-01-20', absences: [{ enrollmentId: one!.enrollmentId, kind: 'ill' }] }),
      'days.0.absences.0.kind',
    ],
  ])('of %s is refused with the field named', async (_says, of, field) => {
    const { sectionId } = await aSection(2);
    const reply = await week(sectionId);
    const { status, body } = await take(sectionId, [{ revision: '', ...of(reply) }]);
    expect([status, body.errors.map((each) => each.field)]).toEqual([422, [field]]);
  });

  it('takes no student of another section', async () => {
    const { sectionId } = await aSection(3);
    const other = await week((await aSection(4)).sectionId);
    const { days, today } = await week(sectionId);
    const open = days.find(({ taken, day }) => taken === null && day <= today)!;
    const absences = [{ enrollmentId: other.students[0]!.enrollmentId, kind: 'absent' }];
    expect((await take(sectionId, [{ day: open.day, revision: open.revision, absences }])).status).toBe(404);
    expect((await week(sectionId, open.day)).days).toEqual(days);
  });
});

describe('the grade sheet', () => {
  const sheetOf = async (sectionId: number) =>
    (await registrar.get<SheetReply>(`/grade-sheets/${sectionId}/${termGrade}/${winter}`)).body;

  it('tells the last day on which each student came, as another query of the registers does', async () => {
    const { body: lists } = await registrar.get<SheetListReply[]>(`/grade-sheets?period=${winter}`);
    const [sheet] = lists.find(({ itemId }) => itemId === termGrade)!.sheets;
    const { rows } = await sheetOf(sheet!.sectionId);
    const asked = await query<{ id: number; last: string | null; taken: number }>(
      `SELECT e.id, max(r.day) FILTER (WHERE a.kind IS NULL OR a.kind = 'late')::text AS last, count(r.day)::int AS taken
       FROM enrollments e LEFT JOIN registers r ON r.section_id = e.section_id AND r.day BETWEEN '2026-01-05' AND '2026-03-27'
         AND r.day >= e.entered_on AND (e.withdrawn_on IS NULL OR r.day <= e.withdrawn_on)
       LEFT JOIN absences a ON a.enrollment_id = e.id AND a.day = r.day
       WHERE e.section_id = $1 GROUP BY e.id`,
      [sheet!.sectionId],
    );
    const told = new Map(asked.map(({ id, ...each }) => [id, each]));
    expect(rows.length).toBeGreaterThan(5);
    for (const { enrollmentId, attendance, mark } of rows) {
      expect({ last: attendance!.lastPresent, taken: attendance!.daysTaken }).toEqual(told.get(enrollmentId));
      // Proposed, never put in.
      expect(mark.lastDate).toBeNull();
    }
  });

  it('tells nothing where a school takes no attendance, until it does', async () => {
    const sectionId = (await aSection(0)).sectionId;
    const takes = (takesAttendance: boolean) =>
      registrar.send('PUT', `/schools/${college}/attendance`, { takesAttendance });
    expect((await takes(false)).status).toBe(204);
    expect((await sheetOf(sectionId)).rows.every(({ attendance }) => attendance === null)).toBe(true);
    expect((await takes(true)).status).toBe(204);
    expect((await sheetOf(sectionId)).rows.every(({ attendance }) => attendance !== null)).toBe(true);
  });
});

describe('a file of attendance', () => {
  const preview = async (...lines: string[]) => {
    const form = new FormData();
    form.append('file', new Blob([['Section,Student,Day,Attendance', ...lines].join('\n')]), 'attendance.csv');
    return registrar.send<AttendanceImportReply>(
      'POST',
      `/schools/${college}/attendance/import?period=${winter}`,
      form,
    );
  };
  const accept = (revision: string, rows: readonly object[]) =>
    registrar.send<Problem & { registers: number }>('PUT', `/schools/${college}/attendance/rows?period=${winter}`, {
      revision,
      rows,
    });
  const ground = async (at: number) => {
    const { sectionId, section } = await aSection(at);
    const { days, today, students } = await week(sectionId);
    const open = days.find(({ taken, day }) => taken === null && day <= today)!;
    const names = students.map(({ student }) => `"${student}"`);
    return { sectionId, section, day: open.day, names, students };
  };

  it('is looked at first; accepted, whoever it does not name was present; and the same file again changes nothing', async () => {
    const { sectionId, section, day, names, students } = await ground(5);
    const lines = [
      `${section},${names[0]},${day},A`,
      `${section},${names[1]},${day},present`,
      `${section},${names[2]},${day},sick`,
      `${section},${names[0]},${day},L`,
    ];
    const { status, body } = await preview(...lines);
    expect([status, body.rows.map(({ outcome }) => outcome), body.registers]).toEqual([
      200,
      ['new', 'new', 'faulty', 'twice'],
      1,
    ]);
    expect((await week(sectionId, day)).days.find((each) => each.day === day)!.taken).toBeNull();
    const rows = body.rows.filter(({ outcome }) => outcome === 'new').map(({ cells }) => cells);
    const accepted = await accept(body.revision, rows);
    expect([accepted.status, accepted.body]).toEqual([200, { rows: 2, registers: 1 }]);
    const after = await week(sectionId, day);
    expect(after.students.filter(({ absences }) => day in absences).map(({ enrollmentId }) => enrollmentId)).toEqual([
      students[0]!.enrollmentId,
    ]);
    const again = (await preview(...lines.slice(0, 2))).body;
    expect(again.rows.map(({ outcome }) => outcome)).toEqual(['same', 'same']);
    expect((await registrar.send('POST', `/changes/${accepted.change}/undo`)).status).toBe(200);
    expect((await week(sectionId, day)).days.find((each) => each.day === day)!.taken).toBeNull();
  });

  it('is refused where attendance was taken since it was looked at, and nothing of it is written', async () => {
    const { sectionId, section, day, names } = await ground(6);
    const { body } = await preview(`${section},${names[0]},${day},A`);
    const other = await ground(7);
    const { days } = await week(other.sectionId, other.day);
    const { revision } = days.find((each) => each.day === other.day)!;
    expect((await take(other.sectionId, [{ day: other.day, revision, absences: [] }])).status).toBe(200);
    expect(
      (
        await accept(
          body.revision,
          body.rows.map(({ cells }) => cells),
        )
      ).status,
    ).toBe(409);
    expect((await week(sectionId, day)).days.find((each) => each.day === day)!.taken).toBeNull();
  });

  it('without the columns it needs is refused, and says which', async () => {
    const form = new FormData();
    form.append('file', new Blob(['Name,Mark\nReed,4\n']), 'marks.csv');
    const { status, body } = await registrar.send<Problem>(
      'POST',
      `/schools/${college}/attendance/import?period=${winter}`,
      form,
    );
    expect([status, body.code]).toEqual([422, 'columns-of-attendance-missing']);
  });

  it('is for those who post for a whole school', async () => {
    const teacher = await server.as('harun');
    const { status } = await teacher.send('PUT', `/schools/1/attendance/rows?period=4`, { revision: '', rows: [{}] });
    expect([403, 404]).toContain(status);
  });
});

it('a teacher takes the attendance of their own sections, and sees no others', async () => {
  const teacher = await server.as('harun');
  const { body } = await teacher.get<AttendanceListReply>('/attendance?period=4');
  expect(new Set(body.sections.map((each) => each.teacher))).toEqual(new Set(['Nance, Harun']));
  const strange = (await registrar.get<AttendanceListReply>('/attendance?period=4')).body.sections.find(
    ({ sectionId }) => !body.sections.some((own) => own.sectionId === sectionId),
  )!;
  expect((await teacher.get(`/attendance/${strange.sectionId}/4`)).status).toBe(404);
});
