import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import ExcelJS from 'exceljs';
import { describe, expect, it } from 'vitest';
import { columnLetters, columnNumber } from './cell-address.js';
import { kindOfFormat } from './number-formats.js';
import { readWorkbookInThread } from './read-workbook-in-thread.js';
import { readWorkbookOrThrow } from './read-workbook.js';
import { daySerial, timeSerial } from './serial-day.js';
import { writeWorkbook } from './write-workbook.js';

/* Read and written against a general library for workbooks, which shares no code with ours; and against workbooks
   written by hand after ECMA-376, for what no library writes. */

const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

interface ByHand {
  readonly sheets?: string;
  readonly settings?: string;
  readonly rows?: string;
  readonly after?: string;
  readonly strings?: string;
  readonly styles?: string;
}

/** A workbook of two sheets, of which the second holds "second". */
function byHand({ sheets, settings = '', rows = '', after = '', strings = '', styles = '' }: ByHand): Buffer {
  const relation = (id: string, type: string, target: string) =>
    `<Relationship Id="${id}" Type="${office}/${type}" Target="${target}"/>`;
  const relations = (...each: string[]) => `<Relationships>${each.join('')}</Relationships>`;
  const parts = {
    '_rels/.rels': relations(relation('a', 'officeDocument', '/book/workbook.xml')),
    'book/workbook.xml': `<workbook xmlns="${main}" xmlns:r="${office}">${settings}<sheets>${sheets ?? '<sheet name="One" r:id="one"/><sheet name="Two" r:id="two"/>'}</sheets></workbook>`,
    'book/_rels/workbook.xml.rels': relations(
      relation('one', 'worksheet', 'sheets/1.xml'),
      relation('two', 'worksheet', 'sheets/2.xml'),
      relation('chart', 'chartsheet', 'charts/1.xml'),
      relation('strings', 'sharedStrings', 'strings.xml'),
      relation('styles', 'styles', 'styles.xml'),
    ),
    'book/sheets/1.xml': `<worksheet><sheetData>${rows}</sheetData>${after}</worksheet>`,
    'book/sheets/2.xml': '<x:worksheet xmlns:x="m"><x:sheetData><x:row><x:c t="str"><x:v>second</x:v></x:c></x:row></x:sheetData></x:worksheet>', // prettier-ignore
    'book/strings.xml': `<sst>${strings}</sst>`,
    'book/styles.xml': `<styleSheet>${styles}</styleSheet>`,
  };
  return Buffer.from(zipSync(Object.fromEntries(Object.entries(parts).map(([path, xml]) => [path, strToU8(xml)]))));
}

const read = async (bytes: Buffer) => (await readWorkbookOrThrow(bytes, 'totals.xlsx')).rows;
const cells = (...each: string[]) => `<row>${each.join('')}</row>`;
const text = fc.string({ unit: 'grapheme', maxLength: 12 });

describe('a workbook that we write', () => {
  it('is read by others as it was, and by us, whatever its texts are', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.array(fc.oneof(text, fc.constantFrom('a<b>&"', '_x000D_', ' two  ', 'tab\tbreak\n', '=1+1', '\u0007'))),
          {
            minLength: 1,
            maxLength: 6,
          },
        ),
        async (rows) => {
          const bytes = writeWorkbook('Courses', rows);
          const theirs = new ExcelJS.Workbook();
          await theirs.xlsx.load(bytes as never);
          const sheet = theirs.worksheets[0]!;
          for (const [row, texts] of rows.entries())
            for (const [column, expected] of texts.entries())
              expect(unescapedAsTheyLeaveIt(sheet.getCell(row + 1, column + 1).text)).toBe(expected);
          const filled = rows.some((row) => row.some((each) => each.trim() !== ''));
          if (!filled) return;
          for (const [row, texts] of (await read(bytes)).entries())
            for (const [column, found] of texts.entries()) expect(found).toBe((rows[row]![column] ?? '').trim());
        },
      ),
      { numRuns: 100 },
    );
  });

  it('has a bold head that stays in sight, and columns as wide as their texts within limits', async () => {
    const theirs = new ExcelJS.Workbook();
    await theirs.xlsx.load(
      writeWorkbook('Courses & more', [
        ['Id', 'Title'],
        ['1', 'x'.repeat(90)],
      ]) as never,
    );
    const sheet = theirs.worksheets[0]!;
    expect([sheet.name, sheet.getCell('B1').font.bold, sheet.getCell('B2').font?.bold ?? false]).toEqual([
      'Courses & more',
      true,
      false,
    ]);
    expect([sheet.views[0]?.state, sheet.getColumn(1).width, sheet.getColumn(2).width]).toEqual(['frozen', 8, 48]);
  });
});

/** The peer leaves the escapes of inline texts as they stand in the file. */
function unescapedAsTheyLeaveIt(found: string): string {
  return found.replaceAll(/_x([\dA-F]{4})_/g, (_all, code: string) => String.fromCharCode(parseInt(code, 16)));
}

describe('a workbook that others wrote', () => {
  it('gives numbers, shares, days, times, formulas, truths, faults and rich texts as people read them', async () => {
    const workbook = new ExcelJS.Workbook();
    const sheet = workbook.addWorksheet('Any');
    sheet.addRow([
      0.1 + 0.2,
      0.875,
      new Date('2026-01-20T13:30:00Z'),
      { formula: 'A1*2', result: 41.5 },
      true,
      { error: '#N/A' },
      { richText: [{ text: 'Good ' }, { text: 'work', font: { bold: true } }] },
      'S00427',
      0.75,
    ]);
    sheet.getCell('B1').numFmt = '0.0%';
    sheet.getCell('I1').numFmt = 'hh:mm';
    expect(await read(Buffer.from(await workbook.xlsx.writeBuffer()))).toEqual([
      ['0.3', '87.5%', '2026-01-20', '41.5', 'yes', '#N/A', 'Good work', 'S00427', '18:00'],
    ]);
  });

  it('is read from the first sheet that is not hidden and not a chart', async () => {
    const sheets = '<sheet r:id="chart"/><sheet r:id="one" state="veryHidden"/><sheet r:id="two"/>';
    expect(await read(byHand({ sheets, rows: cells('<c><v>1</v></c>') }))).toEqual([['second']]);
  });

  it.each([
    [
      'cells without an address follow one another',
      cells('<c><v>1</v></c>', '<c r="C1"><v>3</v></c>', '<c><v>4</v></c>'),
      [['1', '', '3', '4']],
    ],
    ['rows that are left out are blank', '<row r="3"><c><v>3</v></c></row>', [[''], [''], ['3']]],
    [
      'formats far beyond the last entry count for nothing',
      cells('<c><v>1</v></c>') + '<row r="1048576"><c r="XFD1048576" s="1"/></row>',
      [['1']],
    ],
    ['a text of a formula keeps its spaces inside', cells('<c t="str"><f>A1</f><v> a  b </v></c>'), [['a  b']]],
    ['a day may be written as one', cells('<c t="d"><v>2026-01-20T00:00:00</v></c>'), [['2026-01-20']]],
  ])('%s', async (_name, rows, expected) => {
    expect(await read(byHand({ rows }))).toEqual(expected);
  });

  it('of merged cells, only the first counts', async () => {
    const rows =
      cells('<c><v>1</v></c>', '<c><v>2</v></c>') + cells('<c><v>3</v></c>', '<c><v>4</v></c>', '<c><v>5</v></c>');
    const after = '<mergeCells count="1"><mergeCell ref="A1:B2"/></mergeCells>';
    expect(await read(byHand({ rows, after }))).toEqual([
      ['1', '', ''],
      ['', '', '5'],
    ]);
  });

  it('leaves out how a shared text is read aloud, and decodes signs that XML cannot hold', async () => {
    const strings =
      '<si><t>plain</t></si><si><r><t>課</t></r><rPh sb="0" eb="1"><t>か</t></rPh><r><t>題_x0041_</t></r></si>';
    expect(await read(byHand({ strings, rows: cells('<c t="s"><v>1</v></c>', '<c t="s"><v>0</v></c>') }))).toEqual([
      ['課題A', 'plain'],
    ]);
  });

  it('counts days from 1904 where it says so', async () => {
    const styles = '<cellXfs><xf numFmtId="0"/><xf numFmtId="14"/></cellXfs>';
    const rows = cells('<c s="1"><v>1</v></c>');
    expect(await read(byHand({ styles, rows, settings: '<workbookPr date1904="1"/>' }))).toEqual([['1904-01-02']]);
    expect(await read(byHand({ styles, rows }))).toEqual([['1900-01-01']]);
  });

  it.each([
    ['a column beyond the last', cells('<c r="ALM1"><v>1</v></c>'), 'file-unreadable'],
    ['a row beyond the last', '<row r="100001"><c><v>1</v></c></row>', 'file-unreadable'],
    ['XML that breaks off', '<row><c>', 'file-kind'],
    ['an entity of its own', cells('<c t="str"><v>&big;</v></c>'), 'file-kind'],
  ])('is refused for %s', async (_name, rows, code) => {
    await expect(read(byHand({ rows }))).rejects.toMatchObject({ code });
  });

  it('that holds nothing has no row', async () => {
    expect(await read(byHand({ rows: '' }))).toEqual([]);
  });

  it('of a formula has the empty text that it came to, and says where it was never worked out', async () => {
    const rows = cells('<c t="str"><f>IF(1,"")</f><v></v></c><c><f>1+1</f></c><c t="e"><f>1/0</f><v>#DIV/0!</v></c>');
    expect(await read(byHand({ rows }))).toEqual([
      ['', '(formula without a value: open the file in a spreadsheet and save it)', '#DIV/0!'],
    ]);
  });

  it('is refused where it has no sheet to look at', async () => {
    await expect(read(byHand({ sheets: '<sheet r:id="chart"/>' }))).rejects.toMatchObject({ code: 'file-kind' });
    await expect(read(Buffer.from(zipSync({ 'a.txt': strToU8('x') })))).rejects.toMatchObject({ code: 'file-kind' });
  });

  it('leaves the thread to others while it is read', async () => {
    const rows = Array.from({ length: 20_000 }, (_none, row) => ['S' + row, String(row % 100), 'a'.repeat(20)]);
    const bytes = writeWorkbook('Long', rows);
    let turns = 0;
    const turning = setInterval(() => turns++, 1);
    const found = await read(bytes);
    clearInterval(turning);
    expect([found.length, found[19_999]]).toEqual([20_000, rows[19_999]]);
    expect(turns).toBeGreaterThan(5);
  });
});

describe('what a number shows', () => {
  it.each([
    ['General', 'number'],
    ['0.00', 'number'],
    ['0.0%', 'percent'],
    ['yyyy-mm-dd', 'day'],
    ['mmm', 'day'],
    ['h:mm AM/PM', 'time'],
    ['[h]:mm', 'time'],
    ['[Red]0.00" days"', 'number'],
    ['[$-409]d mmmm', 'day'],
    [String.raw`0\%`, 'number'],
    ['0;"y"0', 'number'],
  ])('%s: %s', (format, kind) => {
    expect(kindOfFormat(format)).toBe(kind);
  });

  // ECMA-376, part 1, 18.17.4.1
  it.each([
    [1, false, '1900-01-01'],
    [59, false, '1900-02-28'],
    [60, false, undefined],
    [61, false, '1900-03-01'],
    [45_292, false, '2024-01-01'],
    [45_292.99, false, '2024-01-01'],
    [0, false, undefined],
    [-1, false, undefined],
    [2_958_465, false, '9999-12-31'],
    [2_958_466, false, undefined],
    [0, true, '1904-01-01'],
  ])('day %s, from 1904: %s, is %s', (serial, is1904, day) => {
    expect(daySerial(serial, is1904)).toBe(day);
  });

  it.each([
    [0, '00:00'],
    [1.5, '12:00'],
    [0.999_99, '00:00'],
    [0.354_166_666_7, '08:30'],
  ])('the part %s of a day is %s', (serial, time) => {
    expect(timeSerial(serial)).toBe(time);
  });

  it.each([
    ['A1', 1],
    ['Z1', 26],
    ['AA9', 27],
    ['XFD1048576', 16_384],
  ])('%s stands in column %s', (address, column) => {
    expect(columnNumber(address)).toBe(column);
    expect(columnLetters(column)).toBe(/^[A-Z]+/.exec(address)![0]);
  });
});

describe('a workbook in a thread of its own', () => {
  it('is read as here, and named sheets are found there', async () => {
    const bytes = writeWorkbook('Grades', [
      ['Id', 'Total, in %'],
      ['S1', '80'],
    ]);
    const { text, sheet, sheets } = await readWorkbookInThread(bytes, 'totals.xlsx', 'Grades');
    expect([Buffer.from(text).toString(), sheet, sheets]).toEqual([
      'Id,"Total, in %"\nS1,80\n',
      'Grades',
      [{ name: 'Grades', isHidden: false }],
    ]);
    await expect(readWorkbookInThread(bytes, 'totals.xlsx', 'None')).rejects.toMatchObject({ code: 'file-kind' });
  });

  it('that takes more memory or time than it may is stopped, and said to be too large', async () => {
    const rows = Array.from({ length: 50_000 }, (_none, row) => ['S' + row, `${'a'.repeat(300)}${row}`]);
    const bytes = writeWorkbook('Long', rows);
    for (const limits of [
      { megabytes: 24, seconds: 60 },
      { megabytes: 1024, seconds: 0.2 },
    ])
      await expect(readWorkbookInThread(bytes, 'long.xlsx', null, limits)).rejects.toMatchObject({
        code: 'file-kind',
        data: { name: 'long.xlsx', found: 'a workbook that is too large to be read' },
      });
  });
});
