import Papa from 'papaparse';
import { findHeaderRow, firstRowOfTable, leadingRows } from '#core/files';
import { Refusal } from '../errors/refusal.js';

export interface FileTable {
  /** Position of the row that names the columns, 1 for the first row of the file. */
  readonly headerRow: number;
  readonly header: readonly string[];
  /** Every row of the file, the header and what stands above it too. */
  readonly rows: readonly (readonly string[])[];
}

/** Rows of a table that is read whole into memory. */
const mostRows = 50_000;
export const mostColumns = 1000;
export const openQuotation = 'a quotation mark is opened and never closed';
const delimiters = [',', ';', '\t', '|'];

/**
 * Reads delimited text (RFC 4180; comma, semicolon, tab or bar) into rows and finds its header.
 * @throws Refusal file-empty, file-no-columns, file-unreadable
 */
export function parseTableOrThrow(text: string, name: string): FileTable {
  const plain = withPlainBreaks(text);
  const { data, errors } = Papa.parse<string[]>(plain, { delimiter: delimiterOf(plain), newline: '\n' });
  const quote = errors.find(({ type }) => type === 'Quotes');
  if (quote) {
    throw new Refusal('file-unreadable', {
      row: (quote.row ?? 0) + 1,
      reason: openQuotation,
    });
  }
  return tableOfRowsOrThrow(
    data.filter((row, index) => index < data.length - 1 || row.some((cell) => cell !== '')),
    name,
  );
}

/** What a text of ours, or of a spreadsheet, stands for that begins with an apostrophe so that it is no formula. */
function asTyped(cell: string): string {
  return cell.replace(/^'(?=[=+\-@\t])/, '');
}

/**
 * Finds the header of rows that were read, from whatever kind of file.
 * @throws Refusal file-empty, file-no-columns, file-unreadable
 */
export function tableOfRowsOrThrow(rows: readonly (readonly string[])[], name: string): FileTable {
  if (rows.length === 0) throw new Refusal('file-empty', { name });
  if (rows.length > mostRows)
    throw new Refusal('file-unreadable', { row: mostRows + 1, reason: `at most ${mostRows} rows can be read at once` });
  refuseWide(rows, 0);
  const at = findHeaderRow(rows);
  if (at === undefined) throw new Refusal('file-no-columns', { name });
  return { headerRow: at + 1, header: rows[at]!.map((cell) => cell.trim()), rows: rows.map((row) => row.map(asTyped)) };
}

/**
 * @param rowsBefore rows that stand before these
 * @throws Refusal file-unreadable
 */
export function refuseWide(rows: readonly (readonly string[])[], rowsBefore: number): void {
  const wide = rows.findIndex((row) => row.length > mostColumns);
  if (wide !== -1)
    throw new Refusal('file-unreadable', {
      row: rowsBefore + wide + 1,
      reason: `it has more than ${mostColumns} columns`,
    });
}

/** The text with one kind of end for its lines, whichever kinds it has. */
export function withPlainBreaks(text: string): string {
  return text.replaceAll(/\r\n?/g, '\n');
}

/**
 * The sign that divides the text into the widest table, and of several such the one with most rows of that width. The
 * parser's own guess goes by the average row, so that title lines and a blank last line mislead it where there are two columns.
 */
export function delimiterOf(text: string): string {
  const tables = delimiters.map((delimiter) => {
    const rows = Papa.parse<string[]>(text, { delimiter, preview: leadingRows }).data;
    const at = firstRowOfTable(rows);
    const width = at === undefined ? 0 : rows[at]!.length;
    return { delimiter, width, rows: rows.filter((row) => row.length === width).length };
  });
  return tables.toSorted((one, other) => other.width - one.width || other.rows - one.rows)[0]!.delimiter;
}
