import { readFileSync } from 'node:fs';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Problem } from '#contract/problems';
import type { FileImportReply, FileImportSummaryReply } from '#contract/transfer';
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

function read<Body = FileImportReply>(name: string, bytes: Buffer | string) {
  const form = new FormData();
  form.append('file', new Blob([typeof bytes === 'string' ? bytes : new Uint8Array(bytes)]), name);
  return registrar.send<Body>('POST', '/file-imports?period=4', form);
}
const accept = <Body = FileImportReply>({ id, preview }: FileImportReply, previewId = preview!.previewId) =>
  registrar.send<Body>('POST', `/file-imports/${id}/accept`, { previewId });
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
      expect([body.encoding, body.header[body.idColumn!], body.header[body.gradeColumn!]]).toEqual([
        encoding,
        id,
        grade,
      ]);
      expect([body.sectionId, body.proposals.section!.sectionId]).toEqual([body.sectionId, body.sectionId]);
      expect(body.preview!.counts.new).toBe(brings);
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
    const { counts, rows } = body.preview!;
    expect(counts).toMatchObject({
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
    expect(rows.find(({ outcome }) => outcome === 'twice')).toMatchObject({ row: 2, sameAs: [22] });
    await registrar.send('DELETE', `/file-imports/${body.id}`);
  });
});

describe('a kind of file that was accepted before', () => {
  const kind = (total: string) => `Pupil no;Attempts;Kept total\nS13969;91;${total}\nS11057;92;70\n`;

  it('is read again as somebody chose then, with the file named as the reason', async () => {
    const first = (await read('autumn.csv', kind('80'))).body;
    expect(first.proposals.grade).toMatchObject({ column: 2, reason: { code: 'name-and-percents' } });
    const { body: whole } = await read('whole.csv', demoFile('tidal-ecology-1.csv'));
    const choice = { idColumn: 0, gradeColumn: 1, sectionId: whole.sectionId };
    const chosen = await registrar.send<FileImportReply>('PUT', `/file-imports/${first.id}/columns`, choice);
    await accept(chosen.body);
    const later = (await read('winter.csv', kind('81').replace('Kept total', 'KEPT TOTAL'))).body;
    expect([later.idColumn, later.gradeColumn]).toEqual([0, 1]);
    expect(later.proposals.grade).toEqual({
      column: 1,
      confidence: 99,
      reason: { code: 'earlier', fileName: 'autumn.csv' },
    });
    const other = (await read('other.csv', kind('82').replace('Attempts', 'Tries'))).body;
    expect(other.gradeColumn).toBe(2);
    await registrar.send('POST', `/file-imports/${first.id}/undo`);
    expect((await registrar.get<FileImportReply>(`/file-imports/${later.id}`)).body.proposals.grade?.column).toBe(2);
    for (const { id } of [whole, later, other]) await registrar.send('DELETE', `/file-imports/${id}`);
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
    expect(body.preview!.counts).toEqual(plain.preview!.counts);
    expect(body.preview!.rows.map(({ after }) => after)).toEqual(plain.preview!.rows.map(({ after }) => after));
    for (const { id } of [body, plain]) await registrar.send('DELETE', `/file-imports/${id}`);
  });

  it('with a formula that was never worked out is refused by its cell', async () => {
    const workbook = new ExcelJS.Workbook();
    workbook.addWorksheet('Totals').addRows([
      ['Student number', 'Total'],
      ['S10427', { formula: 'B9/2' }],
    ]);
    const { status, body } = await read<Problem>('f.xlsx', Buffer.from(await workbook.xlsx.writeBuffer()));
    expect([status, body.detail]).toEqual([
      422,
      'Row 2: the formula in B2 has no value; open the file in a spreadsheet, save it, and choose it again.',
    ]);
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
    expect(again.preview!.counts).toMatchObject({ new: 0, changed: 0, same: 20 });
    expect((await accept<Problem>(again)).body.code).toBe('nothing-to-write');

    const changed = (await read('later.csv', demoFile('tidal-ecology-1.csv').toString().replace(firstTotal(), '90.5')))
      .body;
    expect(changed.preview!.counts).toMatchObject({ new: 0, changed: 1, same: 19 });
    await accept(changed);
    expect((await registrar.send<Problem>('POST', `/file-imports/${first.id}/undo`)).body).toMatchObject({
      code: 'import-built-upon',
      detail: 'Undo later.csv first.',
    });
    await registrar.send('POST', `/file-imports/${changed.id}/undo`);
    expect(await computedOf('Tidal Ecology 1')).toEqual(sheet.rows.map(({ computed }) => computed!.percent));
    await registrar.send('POST', `/file-imports/${first.id}/undo`);
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
    expect(fresh.preview!.counts).toMatchObject({ changed: 1, same: 19 });
    expect((await accept(fresh)).status).toBe(200);
    expect((await accept<Problem>(fresh)).body.code).toBe('import-done');
  });

  it('waits for the columns and the section', async () => {
    const { body: file } = await read('strange.csv', 'Word,Other\nsea,tide\nwind,sand\n');
    expect([file.idColumn, file.gradeColumn, file.preview]).toEqual([null, null, null]);
    expect(
      (await registrar.send<Problem>('POST', `/file-imports/${file.id}/accept`, { previewId: '0'.repeat(64) })).body
        .code,
    ).toBe('columns-missing');
    const wrong = await registrar.send<Problem>('PUT', `/file-imports/${file.id}/columns`, {
      idColumn: 7,
      gradeColumn: 1,
      sectionId: null,
    });
    expect(wrong.body.errors).toEqual([{ field: 'idColumn', detail: 'a column from 0 to 1' }]);
    const same = await registrar.send<Problem>('PUT', `/file-imports/${file.id}/columns`, {
      idColumn: 1,
      gradeColumn: 1,
      sectionId: null,
    });
    expect(same.body.errors[0]!.field).toBe('gradeColumn');
    const { body: chosen } = await registrar.send<FileImportReply>('PUT', `/file-imports/${file.id}/columns`, {
      idColumn: 0,
      gradeColumn: 1,
      sectionId: 1,
    });
    expect(chosen.preview!.counts.unknown).toBe(2);
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

describe('a file that is no table of text', () => {
  it.each([
    [
      'half a workbook',
      'totals.xlsx',
      Buffer.from('504b030414000600', 'hex'),
      415,
      'totals.xlsx is a zip that is broken off or damaged; a CSV or XLSX export is needed. Export or save it again.',
    ],
    ['a PDF', 'totals.pdf', '%PDF-1.7', 415, 'totals.pdf is a PDF; a CSV or XLSX export is needed.'],
    [
      'a web page',
      'totals.csv',
      '<!DOCTYPE html><html><body>Sign in</body></html>',
      415,
      'totals.csv is a web page; a CSV or XLSX export is needed. Export it from the platform again, as CSV.',
    ],
    ['empty', 'totals.csv', '', 422, 'totals.csv holds no rows.'],
    ['blank', 'totals.csv', ' \n\n', 422, 'totals.csv holds no rows.'],
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
      'Row 2: it holds NUL bytes, which text never does; export the file again.',
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

  it('of 200 MB is refused at 25, without the server taking it in', async () => {
    const before = process.memoryUsage().rss;
    const answer = await read<Problem>('huge.csv', Buffer.alloc(200 * 1024 * 1024, 'S1,80\n'));
    expect([answer.status, answer.body.code, answer.body.detail]).toEqual([
      413,
      'file-too-large',
      'At most 25 MB can be read; export one section or one period at a time.',
    ]);
    expect((await registrar.get('/session')).status).toBe(200);
    expect(process.memoryUsage().rss).toBeGreaterThan(before / 2);
  });

  it('that is missing altogether names the field', async () => {
    const { status, body } = await registrar.send<Problem>('POST', '/file-imports?period=4', new FormData());
    expect([status, body.errors]).toEqual([422, [{ field: 'file', detail: 'choose a CSV or XLSX file' }]]);
  });
});
