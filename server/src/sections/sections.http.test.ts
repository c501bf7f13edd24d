import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { EnrollmentCells, SectionCells } from '#core/sections';
import type { ChangeReply } from '#contract/changes';
import type { SheetReply, SheetSummaryReply } from '#contract/posting';
import type { BookReply } from '#contract/calculation';
import type { SheetListReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import type {
  EnrollmentRowReply,
  EnrollmentsImportReply,
  EnrollmentsReply,
  SavedEnrollmentsReply,
  SavedSectionsReply,
  SectionRowReply,
  SectionsImportReply,
  SectionsReply,
} from '#contract/sections';
import { checkLog } from '../../test/check-log.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const sections = async (period = 4) =>
  (await registrar.get<SectionsReply>(`/schools/1/sections?period=${period}`)).body;
const change = <Row extends SectionRowReply | EnrollmentRowReply>(
  { id, revision, cells }: Row,
  over: Partial<Row['cells']>,
) => ({ id, revision, cells: { ...cells, ...over } });
const save = <Body = SavedSectionsReply>(changes: readonly object[], removed: readonly number[] = []) =>
  registrar.send<Body>('PUT', '/schools/1/sections?period=4', { changes, removed });
const seatsIn = async (sectionId?: number) => {
  const of = sectionId === undefined ? '' : `&section=${sectionId}`;
  return (await registrar.get<EnrollmentsReply>(`/schools/1/enrollments?period=4${of}`)).body;
};
const saveSeats = <Body = SavedEnrollmentsReply>(changes: readonly object[], removed: readonly number[] = []) =>
  registrar.send<Body>('PUT', '/schools/1/enrollments?period=4', { changes, removed });
const undo = (number: number | null) => registrar.send<Problem>('POST', `/changes/${number}/undo`);
const named = (rows: readonly SectionRowReply[], name: string) => rows.find((row) => row.name === name)!;
const query = async <Row extends object>(text: string) => (await server.database.pool.query<Row>(text)).rows;

/** What a file of rows would change. */
async function plan<Body>(place: string, bytes: Uint8Array | string) {
  const form = new FormData();
  form.set('file', new Blob([bytes as Uint8Array<ArrayBuffer>]), 'rows.csv');
  return registrar.send<Body>('POST', `/schools/1/${place}/import?period=4`, form);
}
const exported = async (place: string) =>
  (await registrar.get<Uint8Array>(`/schools/1/${place}/export?period=4&type=csv`, 'bytes')).body;

async function newSection(over: Partial<SectionCells> = {}) {
  const { cells } = named((await sections()).sections, 'Knots 1');
  const made = await save([{ id: null, revision: '', cells: { ...cells, number: '71', startsOn: '', ...over } }]);
  return { ...made, section: made.body.sections.find(({ id }) => id === made.body.saved?.[0]?.id)! };
}
const seat = (over: Partial<EnrollmentCells>) => ({
  id: null,
  revision: '',
  cells: { section: '', student: '', enteredOn: '', withdrawnOn: '', ...over },
});

describe('the sections of a year', () => {
  it('are those of the year that a period lies in, with who teaches them and how many sit in them', async () => {
    const reply = await sections();
    const counts = await query<{ count: number }>(`
      SELECT count(*)::int AS count FROM sections s JOIN periods p ON p.id = s.period_id WHERE p.school_id = 1`);
    expect(reply.sections.length).toBe(counts[0]!.count);
    expect((await sections(6)).sections).toEqual(reply.sections);
    const knots = named(reply.sections, 'Knots 1');
    expect(knots.cells).toMatchObject({ course: 'Knots', number: '1' });
    expect((await seatsIn(knots.id)).enrollments.length).toBe(knots.students);
    expect(reply.staff.some(({ names }) => names[0] === knots.cells.teacher)).toBe(true);
  });

  it('are added, changed and removed together, and go back as a whole', async () => {
    const before = await sections();
    const [first, second] = before.sections.filter(({ cells }) => cells.course === 'Knots');
    const { change: made, section } = await newSection();
    const teacher = before.staff.find(({ names }) => names[0] !== first!.cells.teacher)!.names[0]!;
    const saved = await save(
      [change(first!, { teacher, number: second!.cells.number }), change(second!, { number: first!.cells.number })],
      [section.id],
    );
    expect(saved.status).toBe(200);
    const [knots1, knots2] = [first!.id, second!.id].map((id) => saved.body.sections.find((row) => row.id === id)!);
    expect([knots1!.name, knots1!.cells.teacher, knots2!.name]).toEqual([second!.name, teacher, first!.name]);
    expect(saved.body.sections.some(({ id }) => id === section.id)).toBe(false);
    expect((await undo(saved.change)).status).toBe(200);
    expect((await undo(made)).status).toBe(200);
    expect(await sections()).toEqual(before);
    expect(await checkLog(registrar)).toMatchObject({ state: 'whole' });
  });

  it('may have co-teachers, who open its sheet and its book as its teacher does until they are taken out', async () => {
    const { staff, sections: all } = await sections();
    const ruben = staff.find(({ names }) => names[0] === 'Varley, Ruben')!;
    const knots = all.find(({ cells }) => cells.course === 'Knots' && cells.teacher !== 'Varley, Ruben')!;
    const coTeacher = await server.as('ruben');
    await query(`DELETE FROM account_roles WHERE role = 'approver'`);
    const book = `/grade-books/${knots.id}/4`;
    const found = async () =>
      (await coTeacher.get<{ kind: string; id: number }[]>('/search?text=knots')).body.some(
        ({ id }) => id === knots.id,
      );
    const listed = async () =>
      (await coTeacher.get<SheetListReply[]>('/grade-sheets?period=4')).body
        .flatMap(({ sheets }) => sheets)
        .some(({ sectionId }) => sectionId === knots.id);
    expect([(await coTeacher.get(book)).status, await listed(), await found()]).toEqual([404, false, false]);
    const saved = await save([change(knots, { coTeachers: 'Ruben Varley' })]);
    expect(saved.body.sections.find(({ id }) => id === knots.id)!.cells.coTeachers).toBe(ruben.names[0]);
    expect([(await coTeacher.get(book)).status, await listed(), await found()]).toEqual([200, true, true]);
    expect((await coTeacher.get<BookReply>(book)).body.canEdit).toBe(true);
    expect((await undo(saved.change)).status).toBe(200);
    expect([(await coTeacher.get(book)).status, await listed(), await found()]).toEqual([404, false, false]);
  });

  it('tell each cell that cannot be, and save nothing', async () => {
    const before = await sections();
    const { cells, ...row } = named(before.sections, 'Knots 1');
    const refused = await save<Problem>([
      { id: row.id, revision: row.revision, cells: { ...cells, teacher: 'Nobody', endsOn: '1900-01-01' } },
      { id: null, revision: '', cells: { ...cells, number: '01' } },
    ]);
    expect([refused.status, refused.body.errors?.map(({ field }) => field)]).toEqual([
      422,
      ['changes.0.cells.teacher', 'changes.0.cells.endsOn', 'changes.1.cells.number'],
    ]);
    expect(await sections()).toEqual(before);
  });

  it('changed by two are told of to the second', async () => {
    const [row] = (await sections()).sections;
    const first = await save([change(row!, { number: '81' })]);
    const second = await save<Problem>([change(row!, { number: '82' })]);
    expect([first.status, second.status, second.body.type]).toEqual([
      200,
      409,
      expect.stringMatching(/changed-meanwhile$/),
    ]);
    await undo(first.change);
  });

  it('that something hangs on are not removed; with grades they keep their course and their period', async () => {
    const knots = named((await sections()).sections, 'Knots 1');
    const removed = await save<Problem>([], [knots.id]);
    expect([removed.status, removed.body.detail]).toEqual([
      409,
      expect.stringMatching(/^Knots 1 is used by \d+ enrollments/),
    ]);
    const moved = await save<Problem>([change(knots, { course: 'Boatbuilding', number: '91' })]);
    expect([moved.status, moved.body.detail]).toEqual([409, expect.stringMatching(/^Knots 1 keeps its course/)]);
    const renumbered = await save([change(knots, { number: '91' })]);
    expect(renumbered.status).toBe(200);
    await undo(renumbered.change);
  });

  it('may be taught by staff of another school: they are named, and the section can be changed like any other', async () => {
    const [{ id: guest }] = (await query<{ id: number }>(`
      SELECT id FROM people WHERE kind = 'staff' AND school_id = 2 ORDER BY id LIMIT 1`)) as [{ id: number }];
    const { section } = await newSection({ number: '74' });
    await server.database.pool.query('UPDATE sections SET teacher_id = $1 WHERE id = $2', [guest, section.id]);
    const reply = await sections();
    const row = reply.sections.find(({ id }) => id === section.id)!;
    expect(reply.staff.find(({ id }) => id === guest)!.names).toContain(row.cells.teacher);
    const saved = await save([change(row, { startsOn: '2025-09-08' })]);
    expect([saved.status, saved.body.sections.find(({ id }) => id === section.id)!.cells]).toEqual([
      200,
      { ...row.cells, startsOn: '2025-09-08' },
    ]);
    expect((await save([], [section.id])).status).toBe(200);
  });

  it('go out as a file that changes nothing when it comes back, and are planned from another', async () => {
    const same = await plan<SectionsImportReply>('sections', await exported('sections'));
    expect([...new Set(same.body.rows.map(({ outcome }) => outcome))]).toEqual(['same']);
    const { staff, courses } = await sections();
    const [teacher, code] = [staff[0]!.apart, courses[0]!.apart];
    const next = await plan<SectionsImportReply>(
      'sections',
      `Course code,Section,Teacher,Runs in\n${code},95,${teacher},Semester 1\nNO1,1,${teacher},\n`,
    );
    expect(next.body.rows.map(({ outcome, faults }) => [outcome, faults])).toEqual([
      ['new', []],
      ['faulty', [{ field: 'course', fault: 'course-unknown' }]],
    ]);
    const wrong = await plan<Problem>('sections', 'a,b\n1,2\n');
    expect([wrong.status, wrong.body.title]).toEqual([422, 'No sections found']);
  });

  it('are closed to teachers, and those of a period of another school are not found', async () => {
    const teacher = await server.as('harun');
    for (const place of ['sections', 'enrollments']) {
      expect((await teacher.get(`/schools/1/${place}?period=4`)).status).toBe(403);
      expect((await teacher.send('PUT', `/schools/1/${place}?period=4`, { changes: [], removed: [] })).status).toBe(
        403,
      );
      expect((await registrar.get(`/schools/2/${place}?period=4`)).status).toBe(404);
    }
    expect((await registrar.get('/schools/1/enrollments?period=4&section=99999')).status).toBe(404);
  });
});

describe('who sits in sections', () => {
  it('of a new section stand on its grade sheet from the day they are enrolled', async () => {
    const { section } = await newSection({ number: '72' });
    const { students } = await seatsIn(section.id);
    const two = students.slice(0, 2);
    const saved = await saveSeats(two.map(({ apart }) => seat({ section: section.name, student: apart })));
    expect([saved.status, saved.body.saved.length]).toEqual([200, 2]);
    const own = await seatsIn(section.id);
    expect(own.enrollments.map(({ cells, isOfRoster }) => [cells.student, cells.enteredOn, isOfRoster])).toEqual(
      two.map(({ names }) => [names[0], own.sections[0]!.startsOn, false]),
    );
    const lists = await registrar.get<{ itemId: number; sheets: SheetSummaryReply[] }[]>('/grade-sheets?period=4');
    const list = lists.body.find(({ sheets }) => sheets.some(({ sectionId }) => sectionId === section.id))!;
    const sheet = await registrar.get<SheetReply>(`/grade-sheets/${section.id}/${list.itemId}/4`);
    expect(sheet.body.rows.map(({ student }) => student)).toEqual(two.map(({ names }) => names[0]));

    expect((await undo(saved.change)).status).toBe(200);
    expect((await seatsIn(section.id)).enrollments).toEqual([]);
  });

  it('with grades are not removed nor moved, but withdrawn; undo brings them back', async () => {
    const [{ id }] = (await query<{ id: number }>(`
      SELECT e.id FROM enrollments e JOIN grades g ON g.enrollment_id = e.id JOIN sections s ON s.id = e.section_id
      JOIN periods p ON p.id = s.period_id WHERE p.school_id = 1 AND e.withdrawn_on IS NULL ORDER BY e.id LIMIT 1`)) as [
      { id: number },
    ];
    const all = await seatsIn();
    const row = all.enrollments.find((each) => each.id === id)!;
    const removed = await saveSeats<Problem>([], [id]);
    expect([removed.status, removed.body.detail]).toEqual([
      409,
      expect.stringMatching(/Give it a day of withdrawal instead/),
    ]);
    const other = all.enrollments.find(({ sectionId }) => sectionId !== row.sectionId)!.cells.section;
    const moved = await saveSeats<Problem>([change(row, { section: other })]);
    expect(moved.status).toBe(409);
    const left = await saveSeats([change(row, { withdrawnOn: '2026-01-15' })]);
    expect(left.body.enrollments.find((each) => each.id === id)!.cells.withdrawnOn).toBe('2026-01-15');
    const [history] = (await registrar.get<ChangeReply[]>(`/changes?thing=${encodeURIComponent(`enrollment ${id}`)}`))
      .body;
    expect(history?.action).toMatch(/^change the enrollment of /);
    expect((await undo(left.change)).status).toBe(200);
    expect(await seatsIn()).toEqual(all);
  });

  it('may be named by the name that they go by, unless another one has it too', async () => {
    const { section } = await newSection({ number: '73' });
    const [one, other] = (await seatsIn()).students.filter(({ names }) => names.length === 4);
    const [family, given] = one!.names[0]!.split(', ');
    const prefer = (id: number) => query(`UPDATE people SET preferred_name = 'Wren-Two' WHERE id = ${id}`);
    const add = <Body>() => saveSeats<Body>([seat({ section: section.name, student: `Wren-Two ${family}` })]);
    await prefer(one!.id);
    const saved = await add<SavedEnrollmentsReply>();
    expect(saved.body.enrollments.find(({ id }) => id === saved.body.saved[0]!.id)!.cells.student).toBe(one!.names[0]);
    expect((await seatsIn()).students.find(({ id }) => id === one!.id)!.listed).toBe(`${family}, ${given} “Wren-Two”`);
    await undo(saved.change);
    await prefer(other!.id);
    await query(`UPDATE people SET family_name = '${family}' WHERE id = ${other!.id}`);
    const refused = await add<Problem>();
    expect([refused.status, refused.body.errors[0]?.detail]).toEqual([
      422,
      expect.stringMatching(/^more than one has this name/),
    ]);
    await query(`UPDATE people SET preferred_name = NULL WHERE preferred_name = 'Wren-Two'`);
    await query(`UPDATE people SET family_name = '${other!.names[0]!.split(', ')[0]}' WHERE id = ${other!.id}`);
  });

  it('twice, or who left before they came, are told of by their cells', async () => {
    const all = await seatsIn();
    const [row] = all.enrollments;
    const refused = await saveSeats<Problem>([
      seat({ section: row!.cells.section, student: row!.cells.student }),
      change(row!, { withdrawnOn: '2025-08-01' }),
    ]);
    expect([refused.status, refused.body.errors?.map(({ field }) => field)]).toEqual([
      422,
      ['changes.1.cells.withdrawnOn', 'changes.1.cells.student'],
    ]);
    const twice = await saveSeats<Problem>([seat({ section: row!.cells.section, student: row!.cells.student })]);
    expect(twice.body.errors?.map(({ field, detail }) => [field, detail])).toEqual([
      ['changes.0.cells.student', 'a student who does not sit in the section yet'],
    ]);
  });

  it('of a school go out as a file that changes nothing when it comes back', async () => {
    const same = await plan<EnrollmentsImportReply>('enrollments', await exported('enrollments'));
    expect([...new Set(same.body.rows.map(({ outcome }) => outcome))]).toEqual(['same']);
    expect(same.body.rows.length).toBe((await seatsIn()).enrollments.length);
  });
});
