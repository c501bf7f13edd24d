import type ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { Refusal } from '../errors/refusal.js';
import { mostColumns } from './parse-table.js';
import { refuseZipBomb } from './zip-contents.js';

type Rows = readonly (readonly string[])[];

export const spreadsheetTypes = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
} as const;
export type SpreadsheetType = keyof typeof spreadsheetTypes;

/** A workbook is unpacked in memory, cell by cell. */
const mostWorkbookRows = 100_000;

/** Whether the file is a zip, as a workbook is. */
export function isWorkbook(bytes: Buffer): boolean {
  return bytes.subarray(0, 4).toString('hex') === '504b0304';
}

/**
 * The rows of the first sheet of an XLSX workbook, cells as text. Of merged cells the first alone holds the text; a share
 * shown as a percent is read as one; a date is written year first.
 * @throws Refusal file-empty, file-kind, file-unreadable
 */
export async function readWorkbookOrThrow(bytes: Buffer, name: string): Promise<Rows> {
  refuseZipBomb(bytes, name);
  const workbook = await newWorkbook();
  try {
    await workbook.xlsx.load(bytes as never);
  } catch {
    throw new Refusal('file-kind', {
      name,
      found: 'no workbook that can be read',
      hint: 'Save it as CSV or XLSX again.',
    });
  }
  const sheet = workbook.worksheets[0];
  if (!sheet || sheet.rowCount === 0) throw new Refusal('file-empty', { name });
  if (sheet.columnCount > mostColumns)
    throw new Refusal('file-unreadable', { row: 1, reason: `it has more than ${mostColumns} columns` });
  if (sheet.rowCount > mostWorkbookRows) {
    const reason = `a workbook may have at most ${mostWorkbookRows} rows; save it as CSV, which may have more`;
    throw new Refusal('file-unreadable', { row: mostWorkbookRows + 1, reason });
  }
  const rows: string[][] = [];
  sheet.eachRow({ includeEmpty: true }, (row) => {
    const cells: string[] = [];
    for (let column = 1; column <= sheet.columnCount; column++) cells.push(cellText(row.getCell(column)));
    rows.push(cells);
  });
  return rows;
}

/** A long table as the text of a CSV file, piece by piece. Texts stay texts: nothing that begins like a formula becomes one. */
export async function* csvLines(pieces: AsyncIterable<Rows>): AsyncGenerator<string> {
  yield '\uFEFF';
  for await (const rows of pieces) yield `${Papa.unparse(rows as string[][], { escapeFormulae: true })}\r\n`;
}

/** A table as a file. Texts stay texts: nothing that begins like a formula becomes one. */
export async function writeSpreadsheet(type: SpreadsheetType, sheetName: string, rows: Rows): Promise<Buffer> {
  if (type === 'csv') return Buffer.from(`\uFEFF${Papa.unparse(rows as string[][], { escapeFormulae: true })}\r\n`);
  const workbook = await newWorkbook();
  const sheet = workbook.addWorksheet(sheetName, { views: [{ state: 'frozen', ySplit: 1 }] });
  for (const row of rows) sheet.addRow([...row]);
  sheet.getRow(1).font = { bold: true };
  (rows[0] ?? []).forEach((_heading, index) => {
    const longest = Math.max(...rows.map((row) => (row[index] ?? '').length));
    sheet.getColumn(index + 1).width = Math.min(48, Math.max(8, longest + 2));
  });
  return Buffer.from(await workbook.xlsx.writeBuffer());
}

/** The package is large and seldom needed: it is loaded when the first workbook is. */
async function newWorkbook(): Promise<ExcelJS.Workbook> {
  const { default: excel } = await import('exceljs');
  return new excel.Workbook();
}

/**
 * @throws Refusal file-unreadable for a formula that was never worked out, as Wombat works out none
 */
function cellText(cell: ExcelJS.Cell): string {
  if (cell.isMerged && cell.master !== cell) return '';
  const value = cell.result === undefined && cell.formula ? undefined : (cell.result ?? cell.value);
  if (value === undefined) {
    const reason = `the formula in ${cell.address} has no value; open the file in a spreadsheet, save it, and choose it again`;
    throw new Refusal('file-unreadable', { row: Number(cell.row), reason });
  }
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value === 'number' && cell.numFmt?.includes('%')) return `${fifteenDigits(value * 100)}%`;
  return typeof value === 'number' ? fifteenDigits(value) : cell.text.trim();
}

/** A workbook keeps fifteen digits of a number; what binary fractions add beyond them goes. */
function fifteenDigits(value: number): string {
  return String(Number(value.toPrecision(15)));
}
