import Papa from 'papaparse';
import { writeWorkbook } from './workbook/write-workbook.js';

type Rows = readonly (readonly string[])[];

export const spreadsheetTypes = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
} as const;
export type SpreadsheetType = keyof typeof spreadsheetTypes;

/** A long table as the text of a CSV file, piece by piece. Texts stay texts: nothing that begins like a formula becomes one. */
export async function* csvLines(pieces: AsyncIterable<Rows>): AsyncGenerator<string> {
  yield '\uFEFF';
  for await (const rows of pieces) yield `${Papa.unparse(rows as string[][], { escapeFormulae: true })}\r\n`;
}

/** A table as a file. Texts stay texts: nothing that begins like a formula becomes one. */
export function writeSpreadsheet(type: SpreadsheetType, sheetName: string, rows: Rows): Buffer {
  if (type === 'xlsx') return writeWorkbook(sheetName, rows);
  return Buffer.from(`\uFEFF${Papa.unparse(rows as string[][], { escapeFormulae: true })}\r\n`);
}
