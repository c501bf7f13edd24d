import { Refusal } from '../../errors/refusal.js';
import { openZipOrThrow, type OpenZip } from '../open-zip.js';
import { mostColumns } from '../parse-table.js';
import { columnNumber } from './cell-address.js';
import { readNumberKinds, type NumberKind } from './number-formats.js';
import { readStrings, richText, unescaped } from './read-strings.js';
import { readXml } from './read-xml.js';
import { daySerial, timeSerial } from './serial-day.js';
import { findPartsOrThrow, isTrue, type SheetName, type WorkbookParts } from './workbook-parts.js';

/** A workbook is held in memory, cell by cell. */
const mostWorkbookRows = 100_000;

type Rows = readonly (readonly string[])[];

/** A sheet of a workbook, and what other sheets there are. */
export interface Workbook {
  readonly rows: Rows;
  readonly sheets: readonly SheetName[];
  /** The name of the sheet that was read. */
  readonly sheet: string;
}

/**
 * The rows of a sheet of an XLSX workbook, the first that is not hidden where none is named, cells as text. Of merged cells the first alone holds
 * the text; a share shown as a percentage is read as one; a date is written year first.
 * @throws Refusal file-kind, file-unreadable, file-unpacks-too-large
 */
export async function readWorkbookOrThrow(bytes: Buffer, name: string, sheet: string | null = null): Promise<Workbook> {
  const zip = await openZipOrThrow(bytes, name);
  let rows: string[][];
  let parts: WorkbookParts;
  try {
    parts = await findPartsOrThrow(zip, sheet);
    rows = await readSheetOrThrow(zip, parts);
  } catch (error) {
    if (error instanceof Refusal) throw error;
    const hint = 'Save it as CSV or XLSX again.';
    throw new Refusal('file-kind', { name, found: 'no workbook that can be read', hint });
  }
  const width = Math.max(...rows.map((row) => row.length));
  return {
    rows: rows.map((row) => Array.from({ length: width }, (_none, column) => row[column] ?? '')),
    sheets: parts.sheets,
    sheet: parts.name,
  };
}

/** A cell while it is read. */
interface OpenCell {
  readonly column: number;
  readonly type: string;
  readonly kind: NumberKind;
  isFormula: boolean;
  value: string | undefined;
}

/** Rows and cells that hold nothing are not counted: a sheet may be formatted far beyond its last entry. */
async function readSheetOrThrow(zip: OpenZip, parts: WorkbookParts): Promise<string[][]> {
  const kinds = await readNumberKinds(zip, parts.styles);
  const strings = await readStrings(zip, parts.strings);
  const rows: string[][] = [];
  const merged: string[] = [];
  const inline = richText();
  let rowNumber = 0;
  let column = 0;
  let cell: OpenCell | undefined;
  let isValue = false;
  await readXml((await zip.open(parts.sheet))!, {
    open(name, attributes) {
      if (name === 'row') {
        rowNumber = Number(attributes['r'] ?? rowNumber + 1);
        column = 0;
      } else if (name === 'c') {
        column = attributes['r'] === undefined ? column + 1 : columnNumber(attributes['r']);
        const kind = kinds[Number(attributes['s'] ?? 0)] ?? 'number';
        cell = { column, type: attributes['t'] ?? 'n', kind, isFormula: false, value: undefined };
      } else if (name === 'f' && cell) cell.isFormula = true;
      else if (name === 'v' && cell) {
        isValue = true;
        cell.value = '';
      } else if (name === 'mergeCell') merged.push(attributes['ref']!);
      else inline.open(name, attributes);
    },
    text(text) {
      if (isValue && cell) cell.value += text;
      else inline.text(text);
    },
    close(name) {
      inline.close(name);
      if (name === 'v') isValue = false;
      if (name !== 'c' || !cell) return;
      const typed = inline.take();
      const text = cell.type === 'inlineStr' ? typed.trim() : cellText(cell, strings, parts.is1904);
      if (text !== '') place(rows, rowNumber, cell.column, text);
      cell = undefined;
    },
  });
  for (const ref of merged) clearMerged(rows, ref);
  return Array.from(rows, (row) => row ?? []);
}

/** Of a formula that was never worked out, as Wombat works out none; no value of a table, so that its row says what it is. */
const unworked = '(formula without a value: open the file in a spreadsheet and save it)';

function cellText(cell: OpenCell, strings: readonly string[], is1904: boolean): string {
  const { type, kind, value } = cell;
  if (value === undefined) return cell.isFormula ? unworked : '';
  if (value === '') return '';
  if (type === 's') return (strings[Number(value)] ?? '').trim();
  if (type === 'b') return isTrue(value) ? 'yes' : 'no';
  if (type === 'd') return value.slice(0, 10);
  if (type !== 'n') return unescaped(value).trim();
  const number = Number(value);
  if (kind === 'percent') return `${fifteenDigits(number * 100)}%`;
  if (kind === 'day') return daySerial(number, is1904) ?? fifteenDigits(number);
  return kind === 'time' ? timeSerial(number) : fifteenDigits(number);
}

/** A workbook keeps fifteen digits of a number; what binary fractions add beyond them goes. */
function fifteenDigits(value: number): string {
  return String(Number(value.toPrecision(15)));
}

/** @throws Refusal file-unreadable beyond what a table may have */
function place(rows: string[][], row: number, column: number, text: string): void {
  if (row > mostWorkbookRows) {
    const reason = `a workbook may have at most ${mostWorkbookRows} rows; save it as CSV, which may have more`;
    throw new Refusal('file-unreadable', { row, reason });
  }
  if (column > mostColumns)
    throw new Refusal('file-unreadable', { row, reason: `it has more than ${mostColumns} columns` });
  const cells = (rows[row - 1] ??= []);
  while (cells.length < column) cells.push('');
  cells[column - 1] = text;
}

/** Of cells that are merged, only the first shows what it holds. */
function clearMerged(rows: string[][], ref: string): void {
  const [from = '', to = from] = ref.split(':');
  const [left, right] = [columnNumber(from), columnNumber(to)];
  const [top, bottom] = [Number(from.replace(/\D/g, '')), Number(to.replace(/\D/g, ''))];
  for (let row = top; row <= Math.min(bottom, rows.length); row++)
    for (let column = left; column <= Math.min(right, mostColumns); column++)
      if ((row !== top || column !== left) && rows[row - 1]?.[column - 1]) rows[row - 1]![column - 1] = '';
}
