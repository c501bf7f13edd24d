import ExcelJS from 'exceljs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { SavedRows } from '#contract/cell-tables';
import type { CourseImportReply, CoursesReply, CourseReply } from '#contract/courses';
import type { Problem } from '#contract/problems';
import type { ReportItemsReply } from '#contract/report-items';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const ofSchool = async (school = 1) =>
  (await registrar.get<CoursesReply>(`/schools/${school}/courses?period=${[4, 13, 23][school - 1]}`)).body;
const named = ({ courses }: CoursesReply, title: string) => courses.find(({ cells }) => cells.title === title)!;
const change = ({ id, revision, cells }: CourseReply, changed: object) => ({
  id,
  revision,
  cells: { ...cells, ...changed },
});
const undo = <Body>(number: number | null) => registrar.send<Body>('POST', `/changes/${number}/undo`);
const save = <Body>(changes: object[], removed: number[] = []) =>
  registrar.send<Body>('PUT', '/schools/1/courses?period=4', { changes, removed });

it('a course says what is its own, and names the source of what it inherits', async () => {
  const courses = await ofSchool();
  expect(named(courses, 'Knots')).toMatchObject({
    cells: { credits: '', onTranscript: '', level: 'regular' },
    inherited: { credits: { text: '0.5', from: 'department' }, onTranscript: { text: 'yes', from: 'school' } },
    scale: { name: 'Letter scale', from: 'the school' },
  });
  expect(named(courses, 'Tidal Ecology, honours').scale).toEqual({ name: 'Letter scale', from: 'the school' });
  const later = (await registrar.get<CoursesReply>('/schools/1/courses?period=6')).body;
  expect(named(later, 'Tidal Ecology, honours').scale).toEqual({ name: 'Honours letters', from: 'honours courses' });
});

describe('courses saved in bulk', () => {
  it('are changed, added and taken out together', async () => {
    const before = await ofSchool();
    const added = {
      id: null,
      revision: '',
      cells: { ...named(before, 'Knots').cells, code: 'PEU900', title: 'Sail Making' },
    };
    const saved = await save<CoursesReply & SavedRows>([change(named(before, 'Knots'), { credits: '0,75' }), added]);
    const { saved: became, ...body } = saved.body;
    const [knots, { id }] = [named(body, 'Knots'), named(body, 'Sail Making')];
    expect([saved.status, knots.cells.credits]).toEqual([200, '0.75']);
    expect(became.map((row) => row.id)).toEqual([knots.id, id]);
    const after = await save<CoursesReply>([change(named(body, 'Knots'), { credits: '' })], [id]);
    expect(after.body).toMatchObject(before);
    expect((await undo(after.change)).status).toBe(200);
    expect(await ofSchool()).toEqual(body);
    expect((await undo(saved.change)).status).toBe(200);
    expect(await ofSchool()).toEqual(before);
  });

  it('that are removed come back by undo with their exceptions and their scale', async () => {
    const cells = { ...named(await ofSchool(), 'Knots').cells, code: 'PEU901', title: 'Rope Walk' };
    const { body } = await save<CoursesReply>([{ id: null, revision: '', cells }]);
    const { id } = named(body, 'Rope Walk');
    const items = async () => (await registrar.get<ReportItemsReply>('/schools/1/report-items?period=4')).body;
    const { revision, rules, exceptions } = await items();
    const own = { itemId: 101, courseId: id, effect: 'omits', reason: 'no exam' };
    await registrar.send('PUT', '/schools/1/report-items/assignment?period=4', {
      revision,
      rules,
      exceptions: [...exceptions, own],
    });
    const nowhere = { department: null, level: null, sectionId: null, isLocked: false };
    await registrar.send('PUT', '/schools/1/scale-placements', {
      ...nowhere,
      kind: 'course',
      courseId: id,
      scaleId: 11,
      fromPeriodId: 6,
      revision: null,
    });
    const before = [await items(), await ofSchool()];
    const { status, change: number } = await save([], [id]);
    expect([status, (await items()).exceptions]).toEqual([200, exceptions]);
    expect((await undo(number)).status).toBe(200);
    expect([await items(), await ofSchool()]).toEqual(before);
    await save([], [id]);
  });

  it('may exchange their codes', async () => {
    const before = await ofSchool();
    const [knots, debating] = [named(before, 'Knots'), named(before, 'Debating')];
    const {
      status,
      body,
      change: number,
    } = await save<CoursesReply>([
      change(knots, { code: debating.cells.code }),
      change(debating, { code: knots.cells.code }),
    ]);
    expect([status, named(body, 'Knots').cells.code]).toEqual([200, debating.cells.code]);
    await undo(number);
    expect(await ofSchool()).toEqual(before);
  });

  it('name each cell that cannot be taken, and keep nothing of the rest', async () => {
    const before = await ofSchool();
    const changes = [
      change(named(before, 'Knots'), { title: 'Bends and Hitches' }),
      change(named(before, 'Debating'), { level: 'gifted', credits: 'half' }),
      change(named(before, 'Small Sails'), { code: named(before, 'Beekeeping').cells.code }),
    ];
    const { status, body } = await save<Problem>(changes);
    expect([status, body.detail]).toEqual([422, '3 cells cannot be accepted. Nothing was saved.']);
    expect(body.errors).toEqual([
      { field: 'changes.1.cells.level', detail: 'one of regular, honours, college' },
      { field: 'changes.1.cells.credits', detail: 'credits from 0 to 99 with at most four decimals, such as 0.5' },
      { field: 'changes.2.cells.code', detail: 'a code that no other course of the school has' },
    ]);
    expect(await ofSchool()).toEqual(before);
  });

  it('that somebody else changed meanwhile are refused', async () => {
    const before = named(await ofSchool(), 'Debating');
    await save([change(before, { title: 'Debate' })]);
    const { body } = await save<Problem>([change(before, { title: 'Dispute' })]);
    expect([body.code, body.detail, named(await ofSchool(), 'Debate').id]).toEqual([
      'changed-meanwhile',
      expect.stringMatching(/^Morwenna Oake changed the course Debate since/) as unknown,
      before.id,
    ]);
  });

  it('that grades hang on cannot be taken out', async () => {
    const { status, body } = await save<Problem>([], [named(await ofSchool(), 'Tidal Ecology').id]);
    expect([status, body.detail]).toEqual([
      409,
      expect.stringMatching(
        /^Tidal Ecology is used by \d+ sections and \d+ posted grades\. Remove it from the transcript/,
      ),
    ]);
  });
});

describe('files of courses', () => {
  const send = <Body>(name: string, bytes: Uint8Array | string) => {
    const form = new FormData();
    form.set('file', new Blob([bytes as BlobPart]), name);
    return registrar.send<Body>('POST', '/schools/1/courses/import', form);
  };
  const download = async (type: string) => {
    const { body } = await registrar.get<Uint8Array>(`/schools/1/courses/export?type=${type}`, 'bytes');
    return body;
  };

  it.each(['csv', 'xlsx'])('an export as %s is taken in again as the same', async (type) => {
    const { status, body } = await send<CourseImportReply>(`courses.${type}`, await download(type));
    expect([status, body.rows.length, new Set(body.rows.map(({ outcome }) => outcome))]).toEqual([
      200,
      48,
      new Set(['same']),
    ]);
  });

  it('tells what a sheet of any layout would change, and writes nothing', async () => {
    const workbook = new ExcelJS.Workbook();
    const sheet = workbook.addWorksheet('List');
    sheet.addRows([
      ['Courses of next year'],
      ['Course code', 'Name', 'Credits', 'In GPA'],
      ['PEU101', 'Shore Life', 2, true],
      ['PEU999', 'Sails', 'x', ''],
    ]);
    const before = await ofSchool();
    const { body } = await send<CourseImportReply>('next year.xlsx', new Uint8Array(await workbook.xlsx.writeBuffer()));
    expect(body.rows.map(({ row, outcome, changed, faults }) => [row, outcome, changed, faults.length])).toEqual([
      [3, 'changed', ['credits', 'countsInGpa'], 0],
      [4, 'faulty', ['code', 'title', 'credits'], 4],
    ]);
    expect(await ofSchool()).toEqual(before);
  });

  it.each([
    ['no code column', 'notes.csv', 'a,b\n1,2\n', 'column-code-missing'],
    ['one cell', 'note.csv', 'hello', 'file-no-columns'],
    ['a broken workbook', 'x.xlsx', 'PK\x03\x04broken', 'file-kind'],
  ])('%s is refused', async (_what, name, text, code) => {
    expect((await send<Problem>(name, text)).body.code).toBe(code);
  });
});

describe('what departments and the school say', () => {
  it('reaches every course that says nothing itself', async () => {
    const { defaults, defaultsRevision: revision } = await ofSchool();
    const changed = defaults.map((each) =>
      each.department === 'Half-year courses' ? { ...each, mostCredits: '1.5' } : each,
    );
    const { body } = await registrar.send<CoursesReply>('PUT', '/schools/1/course-defaults?period=4', {
      revision,
      defaults: changed,
    });
    expect(named(body, 'Knots').inherited.mostCredits).toEqual({ text: '1.5', from: 'department' });
    const twice = { revision: body.defaultsRevision, defaults: [...changed, changed[0]!] };
    const stale = await registrar.send<Problem>('PUT', '/schools/1/course-defaults?period=4', {
      revision,
      defaults: [],
    });
    expect(stale.body.code).toBe('changed-meanwhile');
    const { body: refused } = await registrar.send<Problem>('PUT', '/schools/1/course-defaults?period=4', twice);
    expect(refused.errors[0]!.detail).toBe('each department once');
  });
});
