import { readdirSync, readFileSync } from 'node:fs';
import { setTimeout } from 'node:timers/promises';
import { sql } from 'drizzle-orm';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { isFileUnderWay } from '#core/files';
import type { Problem } from '#contract/problems';
import type { ChooseColumnsRequest, FileImportReply, FileImportSummaryReply, FileRowsReply } from '#contract/files';
import { WorkQueue } from '#server/platform';
import { waitingRoom } from './file-imports.controller.js';
import { FileDirectoryService } from './file-directory.service.js';
import { changeOf, sheetNamed } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const demoFile = (name: string) => readFileSync(new URL(`../../../demo/files/${name}`, import.meta.url));

/** The total in the second row of the plain file. */
const firstTotal = () => /\d+\.\d+/.exec(demoFile('tidal-ecology-1.csv').toString())![0].replace(/0+$/, '');

function read<Body = FileImportReply>(name: string, bytes: Buffer | Blob | string) {
  const form = new FormData();
  form.append('file', new Blob([Buffer.isBuffer(bytes) ? new Uint8Array(bytes) : bytes]), name);
  return registrar.send<Body>('POST', '/file-imports?period=4', form);
}
const accept = <Body = FileImportReply>({ id, plan }: FileImportReply, planNumber = plan!.number) =>
  registrar.send<Body>('POST', `/file-imports/${id}/accept`, { planNumber });
const rowsOf = async ({ id }: FileImportReply, show?: string) =>
  (await registrar.get<FileRowsReply>(`/file-imports/${id}/rows${show ? `?show=${show}` : ''}`)).body;
/** A choice for the first item of the period. */
const choose = <Body = FileImportReply>(id: number, choice: Partial<ChooseColumnsRequest>) =>
  registrar.send<Body>('PUT', `/file-imports/${id}/columns`, {
    idColumn: null,
    sectionId: null,
    sectionColumn: null,
    grades: [],
    namedSections: {},
    ...choice,
  });
const quarterGrade = (column: number) => [{ column, itemId: 1 }];
const computedOf = async (section: string) => {
  const { sheet } = await sheetNamed(registrar, section);
  return sheet.rows.map(({ computed }) => computed?.percent ?? null);
};

describe('three exports of different layout', () => {
  it.each([
    ['tidal-ecology-1.csv', 'UTF-8', 'Student number', 'Course total (%)', 20],
    ['harbour-history-2.csv', 'UTF-8', 'E-mail', 'Overall', 20],
    ['boatbuilding-1-with-faults.csv', 'UTF-16', 'Identifier', 'Final result', 14],
  ])(
    '%s: columns and section are proposed, every row is previewed, nothing is written',
    async (name, encoding, id, grade, brings) => {
      const { status, body } = await read(name, demoFile(name));
      expect(status).toBe(201);
      expect([body.encoding, body.header[body.idColumn!], body.header[body.grades[0]!.column]]).toEqual([
        encoding,
        id,
        grade,
      ]);
      expect([body.sectionId, body.proposals.section!.sectionId]).toEqual([body.sectionId, body.sectionId]);
      expect(body.plan!.counts.new).toBe(brings);
      const title = name.replace(/-\d.*/, '').replace('-', ' ');
      const { sheet } = await sheetNamed(
        registrar,
        `${title.replace(/\b\w/g, (letter) => letter.toUpperCase())} ${/\d/.exec(name)![0]}`,
      );
      expect(sheet.sectionId).toBe(body.sectionId);
      expect(sheet.rows.every(({ computed }) => computed === null)).toBe(true);
      await registrar.send('DELETE', `/file-imports/${body.id}`);
    },
  );

  it('the one with faults says of each row what is wrong', async () => {
    const { body } = await read('b.csv', demoFile('boatbuilding-1-with-faults.csv'));
    expect(body.plan!.counts).toMatchObject({
      new: 14,
      blank: 1,
      unknown: 1,
      'not in section': 1,
      withdrawn: 1,
      'out of range': 2,
      unreadable: 1,
      twice: 2,
      same: 0,
      changed: 0,
    });
    expect((await rowsOf(body, 'twice')).rows).toMatchObject([
      { row: 2, sameAs: [22] },
      { row: 22, sameAs: [2] },
    ]);
    expect((await rowsOf(body, 'left-out')).total).toBe(8);
    expect((await rowsOf(body, 'not in section')).rows[0]).toMatchObject({
      name: expect.stringContaining(', ') as string,
    });
    await registrar.send('DELETE', `/file-imports/${body.id}`);
  });
});

describe('a kind of file that was accepted before', () => {
  const kind = (total: string) => `Pupil no;Attempts;Kept total\nS13969;91;${total}\nS11057;92;70\n`;

  it('is read again as somebody chose then, with the file named as the reason', async () => {
    const first = (await read('autumn.csv', kind('80'))).body;
    expect(first.proposals.grades).toMatchObject([{ proposal: { column: 2, reason: { code: 'name-and-percents' } } }]);
    const { body: whole } = await read('whole.csv', demoFile('tidal-ecology-1.csv'));
    const chosen = await choose(first.id, { idColumn: 0, grades: quarterGrade(1), sectionId: whole.sectionId });
    await accept(chosen.body);
    const later = (await read('winter.csv', kind('81').replace('Kept total', 'KEPT TOTAL'))).body;
    expect([later.idColumn, later.grades]).toEqual([0, quarterGrade(1)]);
    expect(later.proposals.grades[0]!.proposal).toEqual({
      column: 1,
      confidence: 99,
      reason: { code: 'earlier', fileName: 'autumn.csv' },
    });
    const other = (await read('other.csv', kind('82').replace('Attempts', 'Tries'))).body;
    expect(other.grades).toEqual(quarterGrade(2));
    await registrar.send('POST', `/file-imports/${first.id}/undo`);
    const again = (await read('spring.csv', kind('83'))).body;
    expect(again.proposals.grades[0]?.proposal.column).toBe(2);
    for (const { id } of [whole, later, other, again]) await registrar.send('DELETE', `/file-imports/${id}`);
  });
});

describe('a workbook', () => {
  it('with a merged title, percents as shares, formulas and dates is previewed as its text would be', async () => {
    const rows = Papa.parse<string[]>(demoFile('tidal-ecology-1.csv').toString().trim()).data;
    const [id, total] = [rows[0]!.indexOf('Student number'), rows[0]!.indexOf('Course total (%)')];
    const workbook = new ExcelJS.Workbook();
    const sheet = workbook.addWorksheet('Totals');
    sheet.addRow(['Tidal Ecology 1, exported']);
    sheet.mergeCells('A1:C1');
    sheet.addRow(['Student number', 'Course total (%)', 'Handed in']);
    for (const [at, row] of rows.slice(1).entries()) {
      const share = Number(row[total]) / 100;
      sheet.addRow([row[id], at === 0 ? { formula: '1*1', result: share } : share, new Date('2026-01-20T00:00:00Z')]);
      sheet.getCell(at + 3, 2).numFmt = '0.0000%';
    }
    const { body } = await read('tidal.xlsx', Buffer.from(await workbook.xlsx.writeBuffer()));
    expect([body.encoding, body.header, body.sampleRows[0]?.[2]]).toEqual([
      'XLSX',
      ['Student number', 'Course total (%)', 'Handed in'],
      '2026-01-20',
    ]);
    const plain = (await read('tidal.csv', demoFile('tidal-ecology-1.csv'))).body;
    expect(body.plan!.counts).toEqual(plain.plan!.counts);
    const [sheetRows, plainRows] = [(await rowsOf(body)).rows, (await rowsOf(plain)).rows];
    expect(sheetRows.map(({ after }) => after)).toEqual(plainRows.map(({ after }) => after));
    for (const { id } of [body, plain]) await registrar.send('DELETE', `/file-imports/${id}`);
  });

  it('with a formula that was never worked out has that row skipped, with the reason, and no other', async () => {
    const { sheet } = await sheetNamed(registrar, 'Tidal Ecology 1');
    const numbers = sheet.rows.filter(({ withdrawnOn }) => withdrawnOn === null).map((row) => row.studentNumber);
    const workbook = new ExcelJS.Workbook();
    workbook
      .addWorksheet('Totals')
      .addRows([
        ['Student number', 'Total'],
        ...numbers.map((number, at) => [number, at === 0 ? { formula: 'B9/2' } : 70 + at]),
      ]);
    const { body } = await read('f.xlsx', Buffer.from(await workbook.xlsx.writeBuffer()));
    expect((await rowsOf(body, 'unreadable')).rows.map(({ row, value }) => [row, value])).toEqual([
      [2, '(formula without a value: open the file in a spreadsheet and save it)'],
    ]);
    expect(body.plan!.counts.unreadable).toBe(1);
  });

  it('that would unpack to gigabytes is refused before it is unpacked', async () => {
    const workbook = new ExcelJS.Workbook();
    workbook.addWorksheet('Totals').addRow(['Student number', 'Total']);
    const bytes = Buffer.from(await workbook.xlsx.writeBuffer());
    bytes.writeUInt32LE(3_000_000_000, bytes.indexOf(Buffer.from('504b0102', 'hex')) + 24);
    const { status, body } = await read<Problem>('bomb.xlsx', bytes);
    expect([status, body.code]).toEqual([413, 'file-unpacks-too-large']);
  });
});

describe('accepting', () => {
  it('writes what was previewed, all of it; the same file again brings nothing; taking it back leaves nothing', async () => {
    const first = (await read('tidal.csv', demoFile('tidal-ecology-1.csv'))).body;
    expect((await accept(first)).body.status).toBe('accepted');
    const { sheet } = await sheetNamed(registrar, 'Tidal Ecology 1');
    const wick = sheet.rows.find(({ computed }) => computed?.file?.fileRow === 2)!;
    expect(wick.computed).toMatchObject({
      percent: firstTotal(),
      file: { fileName: 'tidal.csv', column: 'Course total (%)', acceptedBy: 'Morwenna Oake' },
    });

    const again = (await read('tidal.csv', demoFile('tidal-ecology-1.csv'))).body;
    expect(again.plan!.counts).toMatchObject({ new: 0, changed: 0, same: 20 });
    expect((await accept<Problem>(again)).body.code).toBe('nothing-to-write');

    const changed = (await read('later.csv', demoFile('tidal-ecology-1.csv').toString().replace(firstTotal(), '90.5')))
      .body;
    expect(changed.plan!.counts).toMatchObject({ new: 0, changed: 1, same: 19 });
    await accept(changed);
    await registrar.send('POST', `/file-imports/${changed.id}/undo`);
    expect(await computedOf('Tidal Ecology 1')).toEqual(sheet.rows.map(({ computed }) => computed!.percent));
    await registrar.send('POST', `/file-imports/${first.id}/undo`);
    expect((await computedOf('Tidal Ecology 1')).every((percent) => percent === null)).toBe(true);
  });

  it('taken back from under a later one leaves all that the later one says, what they both say too', async () => {
    const first = (await read('early.csv', demoFile('tidal-ecology-1.csv'))).body;
    await accept(first);
    const later = (await read('late.csv', demoFile('tidal-ecology-1.csv').toString().replace(firstTotal(), '90.5')))
      .body;
    expect(later.plan!.counts).toMatchObject({ changed: 1, same: 19 });
    await accept(later);
    const said = await computedOf('Tidal Ecology 1');
    expect([said.length, said.includes('90.5')]).toEqual([20, true]);
    expect((await registrar.send('POST', `/file-imports/${first.id}/undo`)).status).toBe(200);
    expect(await computedOf('Tidal Ecology 1')).toEqual(said);
    await registrar.send('POST', `/file-imports/${later.id}/undo`);
    expect((await computedOf('Tidal Ecology 1')).every((percent) => percent === null)).toBe(true);
  });

  it('a preview that is no longer so is refused, and writes nothing', async () => {
    const [mine, theirs] = [
      (await read('mine.csv', demoFile('tidal-ecology-1.csv'))).body,
      (await read('theirs.csv', demoFile('tidal-ecology-1.csv').toString().replace(firstTotal(), '50.5'))).body,
    ];
    await accept(theirs);
    const before = await computedOf('Tidal Ecology 1');
    const { status, body } = await accept<Problem>(mine);
    expect([status, body.code]).toEqual([409, 'preview-changed']);
    expect(await computedOf('Tidal Ecology 1')).toEqual(before);
    const fresh = (await registrar.get<FileImportReply>(`/file-imports/${mine.id}`)).body;
    expect(fresh.plan!.counts).toMatchObject({ changed: 1, same: 19 });
    expect((await accept(fresh)).status).toBe(200);
    expect((await accept<Problem>(fresh)).body).toMatchObject({
      code: 'import-done',
      detail: expect.stringMatching(/^This file is (being )?imported already\.$/),
    });
    for (const { id } of [fresh, theirs]) await registrar.send('POST', `/file-imports/${id}/undo`);
  });

  it('waits for the columns and the section', async () => {
    const { body: file } = await read('strange.csv', 'Word,Other\nsea,tide\nwind,sand\n');
    expect([file.status, file.idColumn, file.grades, file.plan]).toEqual(['read', null, [], null]);
    expect((await accept<Problem>(file, 0)).body.code).toBe('columns-missing');
    const wrong = await choose<Problem>(file.id, { idColumn: 7, grades: quarterGrade(1) });
    expect(wrong.body.errors).toEqual([{ field: 'idColumn', detail: 'a column from 0 to 1' }]);
    const same = await choose<Problem>(file.id, { idColumn: 1, grades: quarterGrade(1) });
    expect(same.body.errors[0]!.field).toBe('grades');
    const foreign = await choose<Problem>(file.id, { idColumn: 0, sectionId: 999_999, namedSections: { sea: 7.5 } });
    expect(foreign.body.errors.map(({ field }) => field)).toEqual(['sectionId', 'namedSections.sea']);
    const ecology = (await sheetNamed(registrar, 'Tidal Ecology 1')).sheet.sectionId;
    const { body: chosen } = await choose(file.id, { idColumn: 0, grades: quarterGrade(1), sectionId: ecology });
    expect(chosen.plan!.counts.unknown).toBe(2);
    expect((await registrar.send('DELETE', `/file-imports/${file.id}`)).status).toBe(204);
    expect(
      (await registrar.get<FileImportSummaryReply[]>('/file-imports?period=4')).body.some(({ id }) => id === file.id),
    ).toBe(false);
  });

  it('never touches what is posted', async () => {
    const { path, sheet } = await sheetNamed(registrar, 'Harbour History 2');
    await registrar.send('PUT', path, { changes: [changeOf(sheet.rows[0]!, { percent: '77', label: 'C+' })] });
    await accept((await read('harbour.csv', demoFile('harbour-history-2.csv'))).body);
    const after = (await sheetNamed(registrar, 'Harbour History 2')).sheet;
    expect(after.rows[0]).toMatchObject({ version: 1, mark: { percent: '77.00', label: 'C+' } });
    expect(after.rows[0]!.computed).not.toBeNull();
  });
});

describe('a file of a whole school', () => {
  const exam = 101;
  const header = 'Student number;Class;Course total (%);Exam (%)';
  /** Three students of two sections that report an exam, named in the file as "called" says. */
  async function schoolFile(called: (section: string) => string) {
    const [ecology, boats] = [
      (await sheetNamed(registrar, 'Tidal Ecology 1')).sheet,
      (await sheetNamed(registrar, 'Boatbuilding 1')).sheet,
    ];
    const line = (row: { studentNumber: string }, section: string, ...values: string[]) =>
      [row.studentNumber, called(section), ...values].join(';');
    return [
      header,
      line(ecology.rows[0]!, 'Tidal Ecology 1', '81,5', '70'),
      line(ecology.rows[1]!, 'Tidal Ecology 1', '82', 'INC'),
      line(boats.rows[0]!, 'Boatbuilding 1', '90', ''),
      line(boats.rows[0]!, 'Tidal Ecology 1', '90', '60'),
      '',
    ].join('\n');
  }

  it('brings each column to its report item, each row to its section', async () => {
    const { body } = await read('school.csv', await schoolFile((section) => section.toUpperCase()));
    expect([body.sectionColumn, body.sectionId, body.grades]).toEqual([
      1,
      null,
      [
        { column: 2, itemId: 1 },
        { column: 3, itemId: exam },
      ],
    ]);
    expect(body.proposals.sectionColumn).toMatchObject({ reason: { code: 'sections-known', known: 4, rows: 4 } });
    const { rows, total } = await rowsOf(body);
    expect([total, body.dataRows]).toEqual([8, 4]);
    expect(rows.map(({ row, itemId, outcome, section, after }) => [row, itemId, outcome, section, after])).toEqual([
      [2, 1, 'new', 'Tidal Ecology 1', '81.5'],
      [2, exam, 'new', 'Tidal Ecology 1', '70'],
      [3, 1, 'new', 'Tidal Ecology 1', '82'],
      [3, exam, 'label', 'Tidal Ecology 1', null],
      [4, 1, 'new', 'Boatbuilding 1', '90'],
      [4, exam, 'blank', 'Boatbuilding 1', null],
      [5, 1, 'not in section', null, null],
      [5, exam, 'not in section', null, null],
    ]);
    expect((await accept(body)).body.status).toBe('accepted');
    const computed = async (item: number) =>
      (await sheetNamed(registrar, 'Tidal Ecology 1', item)).sheet.rows.map((row) => row.computed?.percent ?? null);
    expect([(await computed(1)).slice(0, 3), (await computed(exam)).slice(0, 3)]).toEqual([
      ['81.5', '82', null],
      ['70', null, null],
    ]);
    const { sheet } = await sheetNamed(registrar, 'Tidal Ecology 1', exam);
    expect(sheet.rows[0]!.computed?.file).toMatchObject({ fileName: 'school.csv', column: 'Exam (%)', fileRow: 2 });
    await registrar.send('POST', `/file-imports/${body.id}/undo`);
    expect([await computed(1), await computed(exam)].flat().every((percent) => percent === null)).toBe(true);
  });

  it('asks what its own names for sections mean, and knows them in the next such file', async () => {
    const ours = (section: string) => (section.startsWith('Tidal') ? 'TIDE/one' : section);
    const { body: file } = await read('own-names.csv', await schoolFile(ours));
    const chosen = await choose(file.id, { idColumn: 0, sectionColumn: 1, grades: quarterGrade(2) });
    expect([chosen.body.plan!.counts.new, chosen.body.plan!.unknownSections]).toEqual([
      1,
      [{ name: 'TIDE/one', rows: 3 }],
    ]);
    const { sectionId } = (await sheetNamed(registrar, 'Tidal Ecology 1')).sheet;
    const { body: named } = await choose(file.id, {
      idColumn: 0,
      sectionColumn: 1,
      grades: quarterGrade(2),
      namedSections: { 'TIDE/one': sectionId },
    });
    expect([named.plan!.counts.new, named.plan!.unknownSections]).toEqual([3, []]);
    await accept(named);
    const { body: next } = await read('own-names-again.csv', await schoolFile(ours));
    expect([next.sectionColumn, next.plan!.counts.same, next.plan!.unknownSections]).toEqual([1, 3, []]);
    await registrar.send('POST', `/file-imports/${named.id}/undo`);
    await registrar.send('DELETE', `/file-imports/${next.id}`);
  });
});

describe('a large file', () => {
  const rows = 25_000;
  /** Long enough to be worked on after the answer; every third row is somebody's, twice at the end. */
  async function largeFile(last = '') {
    const { sheet } = await sheetNamed(registrar, 'Tidal Ecology 1');
    const students = sheet.rows.map(({ studentNumber }) => studentNumber);
    const lines = Array.from({ length: rows }, (_row, at) => {
      const student = at < students.length ? students[at] : `X${at}`;
      return `${student},${60 + (at % 40)},remark about the work that was handed in ${at}`;
    });
    return `Student number,Course total,Remark\n${lines.join('\n')}\n${last}`;
  }
  /** Read to its end, and with its columns chosen: too few of its students are known to propose any. */
  async function planned(name: string): Promise<FileImportReply> {
    const { body } = await read(name, await largeFile());
    expect(body.status).toBe('reading');
    expect((await settled(body.id)).status).toBe('read');
    const { sectionId } = (await sheetNamed(registrar, 'Tidal Ecology 1')).sheet;
    const { body: chosen } = await choose(body.id, { idColumn: 0, grades: quarterGrade(1), sectionId });
    expect(chosen.status).toBe('planning');
    return settled(body.id);
  }
  async function settled(id: number): Promise<FileImportReply> {
    for (;;) {
      const { body } = await registrar.get<FileImportReply>(`/file-imports/${id}`);
      if (!isFileUnderWay(body.status)) return body;
      await setTimeout(50);
    }
  }
  const outcomesOf = async (id: number) =>
    Number(
      (await server.database.queries.execute(sql`SELECT count(*) AS n FROM file_row_outcomes WHERE import_id = ${id}`))
        .rows[0]!['n'],
    );

  it('is read, planned, accepted and taken back after the answer, and shows its first lines', async () => {
    const body = await planned('large.csv');
    const { counts } = body.plan!;
    expect([body.status, body.dataRows, counts.new, counts.new + counts.withdrawn + counts.unknown]).toEqual([
      'planned',
      rows,
      20,
      rows,
    ]);
    const shown = await rowsOf(body);
    expect([shown.rows.length, shown.total, shown.rows[0]!.row]).toEqual([500, rows, 2]);
    expect((await accept(body)).body.status).toBe('accepting');
    expect((await accept<Problem>(body)).status).toBe(409);
    const { stepsDone, stepCount, status } = await settled(body.id);
    expect([stepsDone, stepCount, status]).toEqual([0, 0, 'accepted']);
    expect((await computedOf('Tidal Ecology 1')).filter((percent) => percent !== null)).toHaveLength(20);
    await registrar.send('POST', `/file-imports/${body.id}/undo`);
    expect((await settled(body.id)).status).toBe('undone');
    expect((await computedOf('Tidal Ecology 1')).every((percent) => percent === null)).toBe(true);
  });

  it('whose server fell is taken up where it was, and comes to the same plan', async () => {
    const body = await planned('fallen.csv');
    await server.database.queries.execute(sql`
      UPDATE file_imports SET status = 'planning', plan = NULL, worker = 'fallen', worker_until = now() - interval '1 s'
      WHERE id = ${body.id}`);
    await server.application.get(WorkQueue).ask('abandoned-file', {});
    const again = await settled(body.id);
    expect([again.status, again.plan, await outcomesOf(body.id)]).toEqual(['planned', body.plan, rows]);
    await registrar.send('DELETE', `/file-imports/${body.id}`);
    expect(await outcomesOf(body.id)).toBe(0);
  });

  it('half written by a server that fell shows nothing of it until all is written', async () => {
    const body = await planned('half.csv');
    const { queries } = server.database;
    await queries.execute(sql`
      INSERT INTO computed_grades (item_id, period_id, enrollment_id, percent, import_id, import_row)
      SELECT item_id, 4, enrollment_id, after, import_id, row FROM file_row_outcomes
      WHERE import_id = ${body.id} AND row <= 5000 AND outcome = 'new'`);
    await queries.execute(sql`
      UPDATE file_imports SET status = 'accepting', steps_done = 5000, step_count = ${rows + 1}, asked_by = 1, asked_at = now()
      WHERE id = ${body.id}`);
    expect((await computedOf('Tidal Ecology 1')).every((percent) => percent === null)).toBe(true);
    await server.application.get(WorkQueue).ask('abandoned-file', {});
    expect((await settled(body.id)).status).toBe('accepted');
    expect((await computedOf('Tidal Ecology 1')).filter((percent) => percent !== null)).toHaveLength(20);
    await registrar.send('POST', `/file-imports/${body.id}/undo`);
    expect((await computedOf('Tidal Ecology 1')).every((percent) => percent === null)).toBe(true);
    await settled(body.id);
  });

  it('can be given other columns, and be let go of, while it is planned', async () => {
    const body = await planned('changed.csv');
    const { sectionId } = (await sheetNamed(registrar, 'Harbour History 2')).sheet;
    await choose(body.id, { idColumn: 0, grades: quarterGrade(1), sectionId });
    await choose(body.id, { idColumn: 2, grades: quarterGrade(1), sectionId });
    const again = await settled(body.id);
    expect([again.plan!.number, again.plan!.counts.unknown, await outcomesOf(body.id)]).toEqual([
      body.plan!.number + 2,
      rows,
      rows,
    ]);
    await choose(body.id, { idColumn: 0, grades: quarterGrade(1), sectionId });
    expect((await registrar.send('DELETE', `/file-imports/${body.id}`)).status).toBe(204);
    await setTimeout(300);
    expect([(await registrar.get(`/file-imports/${body.id}`)).status, await outcomesOf(body.id)]).toEqual([404, 0]);
  });

  it('with a fault far down is refused with its row, stays to be looked at, and can be let go of', async () => {
    const { body } = await read('broken.csv', await largeFile('"S1,80\n'));
    const refused = await settled(body.id);
    expect([refused.status, refused.problem]).toEqual([
      'refused',
      {
        title: 'The file cannot be read',
        detail: `Row ${rows + 2}: a quotation mark is opened and never closed.`,
      },
    ]);
    expect((await registrar.send('DELETE', `/file-imports/${body.id}`)).status).toBe(204);
  });
});

describe('a file that is no table of text', () => {
  it.each([
    [
      'half a workbook',
      'totals.xlsx',
      Buffer.from('504b030414000600', 'hex'),
      415,
      'totals.xlsx is a damaged or incomplete zip; a CSV or XLSX export is needed. Export or save it again.',
    ],
    ['a PDF', 'totals.pdf', '%PDF-1.7', 415, 'totals.pdf is a PDF; a CSV or XLSX export is needed.'],
    [
      'a web page',
      'totals.csv',
      '<!DOCTYPE html><html><body>Sign in</body></html>',
      415,
      'totals.csv is a web page; a CSV or XLSX export is needed. Export it from the platform again, as CSV.',
    ],
    ['empty', 'totals.csv', '', 422, 'totals.csv has no rows.'],
    ['blank', 'totals.csv', ' \n\n', 422, 'totals.csv has no rows.'],
    [
      'without columns',
      'totals.csv',
      'Total\n80\n',
      422,
      'totals.csv has no row that names at least two columns, such as a student number and a total.',
    ],
    [
      'with NUL bytes',
      'totals.csv',
      'Id,Total\nS1,8\u00000\n',
      422,
      'Row 2: it contains NUL bytes, which text never does; export the file again.',
    ],
    [
      'with an open quotation',
      'totals.csv',
      'Id,Total\n"S1,80\nS2,90\n',
      422,
      'Row 2: a quotation mark is opened and never closed.',
    ],
    [
      'far too wide',
      'totals.csv',
      `${Array.from({ length: 1200 }, (_each, at) => `c${at}`).join(',')}\n`,
      422,
      'Row 1: it has more than 1000 columns.',
    ],
  ])('(%s) is refused and leaves nothing behind', async (_what, name, bytes, status, detail) => {
    const count = async () => (await registrar.get<FileImportSummaryReply[]>('/file-imports?period=4')).body.length;
    const before = await count();
    const answer = await read<Problem>(name, bytes);
    expect([answer.status, answer.body.detail]).toEqual([status, detail]);
    expect(await count()).toBe(before);
  });

  it('of 200 MB is refused at 128, and nothing of it stays', async () => {
    const megabyte = new Blob([Buffer.alloc(1024 * 1024, 'S1,80\n')]);
    const answer = await read<Problem>('huge.csv', new Blob(Array.from({ length: 200 }, () => megabyte)));
    expect([answer.status, answer.body.code, answer.body.detail]).toEqual([
      413,
      'file-too-large',
      'At most 128 MB can be read; export one section or one period at a time.',
    ]);
    expect((await registrar.get('/session')).status).toBe(200);
    expect(readdirSync(waitingRoom)).toEqual([]);
  });

  it('that is missing altogether names the field', async () => {
    const { status, body } = await registrar.send<Problem>('POST', '/file-imports?period=4', new FormData());
    expect([status, body.errors]).toEqual([422, [{ field: 'file', detail: 'choose a CSV or XLSX file' }]]);
  });
});

it('a number whose zeros a spreadsheet took away is its student’s, where it can be nobody else’s', async () => {
  const { rows } = await server.database.pool.query<{ id: number }>(
    `SELECT id FROM people WHERE kind = 'student' ORDER BY id LIMIT 4`,
  );
  const [alone, one, other, whole] = rows.map(({ id }) => id);
  for (const [id, number] of [
    [alone, '000123'],
    [one, '0077'],
    [other, '00077'],
    [whole, '55'],
  ] as const)
    // prettier-ignore
    await server.database.pool.query('UPDATE people SET sourced_id = $2 WHERE id = $1', [id, number]);
  const students = await server.application.get(FileDirectoryService, { strict: false }).students();
  expect(['123', '000123', '77', '0077', '55'].map((number) => students.get(number))).toEqual([
    alone,
    alone,
    undefined, // two may be meant
    one,
    whole,
  ]);
});

it('a student is known by the number on the card and by the roster’s own id, unless either says somebody else too', async () => {
  const { rows } = await server.database.pool.query<{ id: number }>(
    `SELECT id FROM people WHERE kind = 'student' ORDER BY id DESC LIMIT 3`,
  );
  const [alone, one, other] = rows.map(({ id }) => id);
  for (const [id, sourcedId, number] of [
    [alone, 'guid-a', '4711'],
    [one, 'guid-b', 'guid-c'],
    [other, 'guid-c', '4713'],
  ] as const)
    await server.database.pool.query('UPDATE people SET sourced_id = $2, number = $3 WHERE id = $1', [
      id,
      sourcedId,
      number,
    ]);
  const students = await server.application.get(FileDirectoryService, { strict: false }).students();
  expect(['GUID-A', '4711', 'guid-b', '4713', 'guid-c'].map((key) => students.get(key.toLowerCase()))).toEqual([
    alone,
    alone,
    one,
    other,
    undefined,
  ]);
});

describe('where the table of a file begins', () => {
  const csv = (...rows: string[][]) => rows.map((row) => row.join(',')).join('\n');
  const readAgain = <Body = FileImportReply>(id: number, request: object) =>
    registrar.send<Body>('POST', `/file-imports/${id}/read-again`, { sheet: null, headerRow: null, ...request });
  const numbers = async () => {
    const { sheet } = await sheetNamed(registrar, 'Tidal Ecology 1');
    return sheet.rows.filter(({ withdrawnOn }) => withdrawnOn === null).map(({ studentNumber }) => studentNumber);
  };
  const workbookOf = async (sheets: Record<string, string[][]>, hidden: readonly string[] = []) => {
    const workbook = new ExcelJS.Workbook();
    for (const [name, rows] of Object.entries(sheets)) {
      const state = hidden.includes(name) ? 'hidden' : 'visible';
      workbook.addWorksheet(name, { state }).addRows(rows);
    }
    return Buffer.from(await workbook.xlsx.writeBuffer());
  };

  it('without names of columns every row is data, also one that holds no figure', async () => {
    const [first, second, third] = await numbers();
    const { body } = await read('bare.csv', csv([first!, 'INC'], [second!, '71'], [third!, '82']));
    expect(body).toMatchObject({ headerRow: 0, header: ['', ''], idColumn: 0, dataRows: 3 });
    const { body: planned } = await choose(body.id, {
      idColumn: 0,
      sectionId: body.sectionId,
      grades: quarterGrade(1),
    });
    expect((await rowsOf(planned)).rows.map(({ row, value, outcome }) => [row, value, outcome])).toEqual([
      [1, 'INC', 'label'],
      [2, '71', 'new'],
      [3, '82', 'new'],
    ]);
  });

  it('is said by hand where it was not found, and what the columns mean is proposed anew', async () => {
    const [first, second] = await numbers();
    const table = csv(['Number', '2026'], [first!, '71'], [second!, '82']);
    const { body } = await read('year.csv', table);
    expect([body.headerRow, body.dataRows]).toEqual([0, 3]);
    const { body: named } = await readAgain(body.id, { headerRow: 1 });
    expect(named).toMatchObject({ headerRow: 1, header: ['Number', '2026'], dataRows: 2, idColumn: 0 });
    expect(named.leadingRows[0]).toEqual(['Number', '2026']);
    expect((await readAgain<Problem>(body.id, { headerRow: 9 })).body.errors).toEqual([
      { field: 'headerRow', detail: 'the file has 3 rows' },
    ]);
    expect((await readAgain<Problem>(body.id, { headerRow: 31 })).status).toBe(422);
  });

  it('of a workbook with several sheets is asked for, and nothing is chosen before', async () => {
    const all = await numbers();
    const table = (heading: string, from: number) => [
      ['Number', heading],
      ...all.map((number, at) => [number, String(from + at)]),
    ];
    const sheets = { Notes: table('Total', 10), Grades: table('Quarter grade', 60), Old: table('Total', 30) };
    const { body } = await read('book.xlsx', await workbookOf(sheets, ['Old']));
    expect(body).toMatchObject({ sheet: 'Notes', asksSheet: true, idColumn: null, grades: [], plan: null });
    expect(body.sheets.map(({ name, isHidden }) => [name, isHidden])).toEqual([
      ['Notes', false],
      ['Grades', false],
      ['Old', true],
    ]);
    const { body: chosen } = await readAgain(body.id, { sheet: 'Grades' });
    expect(chosen).toMatchObject({ sheet: 'Grades', asksSheet: false, idColumn: 0, grades: quarterGrade(1) });
    expect((await rowsOf(chosen)).rows.map(({ value }) => value)).toEqual(all.map((_number, at) => String(60 + at)));
    expect((await readAgain<Problem>(body.id, { sheet: 'None' })).body.errors).toEqual([
      { field: 'sheet', detail: 'a sheet of the workbook' },
    ]);
  });

  it.each([
    ['a note', [['Ask about the field trip']], 'file-no-columns'],
    ['nothing', [], 'file-empty'],
  ])('of a workbook whose first sheet holds %s is asked for all the same', async (_what, first, refusal) => {
    const all = await numbers();
    const sheets = { Notes: first, Marks: [['Number', 'Quarter grade'], ...all.map((number) => [number, '71'])] };
    const { body } = await read('notes.xlsx', await workbookOf(sheets, []));
    expect(body).toMatchObject({ asksSheet: true, plan: null });
    const { body: chosen } = await readAgain(body.id, { sheet: 'Marks' });
    expect((await rowsOf(chosen)).rows.map(({ value }) => value)).toEqual(all.map(() => '71'));
    const again = await readAgain<Problem>(body.id, { sheet: 'Notes' });
    expect([again.status, again.body.code]).toEqual([422, refusal]);
  });

  it('of a workbook whose other sheets are hidden is in the one that is seen', async () => {
    const all = await numbers();
    const rows = (value: string) => [['Number', 'Quarter grade'], ...all.map((number) => [number, value])];
    const { body } = await read('hidden.xlsx', await workbookOf({ Old: rows('11'), Grades: rows('91') }, ['Old']));
    expect(body).toMatchObject({ sheet: 'Grades', asksSheet: false });
    expect((await rowsOf(body)).rows[0]!.value).toBe('91');
  });
});
