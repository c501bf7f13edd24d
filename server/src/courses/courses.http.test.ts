import ExcelJS from 'exceljs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CourseImportReply, CoursesReply, CourseReply } from '#contract/courses';
import type { Problem } from '#contract/problems';
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
const change = ({ id, version, cells }: CourseReply, changed: object) => ({
  id,
  version,
  cells: { ...cells, ...changed },
});
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
      version: 0,
      cells: { ...named(before, 'Knots').cells, code: 'PEU900', title: 'Sail Making' },
    };
    const { status, body } = await save<CoursesReply>([change(named(before, 'Knots'), { credits: '0,75' }), added]);
    expect([status, named(body, 'Knots').cells.credits, named(body, 'Knots').version]).toEqual([200, '0.75', 2]);
    const { id } = named(body, 'Sail Making');
    const after = await save<CoursesReply>([change(named(body, 'Knots'), { credits: '' })], [id]);
    expect(after.body.courses).toHaveLength(before.courses.length);
  });

  it('name each cell that cannot be taken, and keep nothing of the rest', async () => {
    const before = await ofSchool();
    const changes = [
      change(named(before, 'Knots'), { title: 'Bends and Hitches' }),
      change(named(before, 'Debating'), { level: 'gifted', credits: 'half' }),
      change(named(before, 'Small Sails'), { code: named(before, 'Beekeeping').cells.code }),
    ];
    const { status, body } = await save<Problem>(changes);
    expect([status, body.detail]).toEqual([422, '3 cells cannot be taken. Nothing was saved.']);
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
    expect([body.code, named(await ofSchool(), 'Debate').id]).toEqual(['set-up-changed', before.id]);
  });

  it('that grades hang on cannot be taken out', async () => {
    const { status, body } = await save<Problem>([], [named(await ofSchool(), 'Tidal Ecology').id]);
    expect([status, body.detail]).toEqual([
      409,
      expect.stringMatching(/^Tidal Ecology is used by \d+ sections and \d+ posted grades\. Take it off/),
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
    const { defaults } = await ofSchool();
    const changed = defaults.map((each) =>
      each.department === 'Half-year courses' ? { ...each, mostCredits: '1.5' } : each,
    );
    const { body } = await registrar.send<CoursesReply>('PUT', '/schools/1/course-defaults?period=4', {
      defaults: changed,
    });
    expect(named(body, 'Knots').inherited.mostCredits).toEqual({ text: '1.5', from: 'department' });
    const twice = { defaults: [...changed, changed[0]!] };
    const { body: refused } = await registrar.send<Problem>('PUT', '/schools/1/course-defaults?period=4', twice);
    expect(refused.errors[0]!.detail).toBe('each department once');
  });
});
