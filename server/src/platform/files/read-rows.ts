import iconv from 'iconv-lite';
import Papa from 'papaparse';
import { Refusal } from '../errors/refusal.js';
import { refuseNul, type Encoding } from './decode-text.js';
import { delimiterOf, openQuotation, refuseWide, withPlainBreaks } from './parse-table.js';

/** How a file writes its rows as text. */
export interface TextForm {
  readonly encoding: Encoding;
  readonly delimiter: string;
}

/** Rows of text, and how many rows of the file stand before them. */
export interface RowsOfText {
  readonly before: number;
  readonly rows: readonly (readonly string[])[];
}

/** No row of a real export is as long; a quotation that never ends is. In characters. */
const longestRow = 1024 * 1024;

/** @param head the beginning of the file, as long as its first rows at least */
export function textFormOf(head: string, encoding: Encoding): TextForm {
  return { encoding, delimiter: delimiterOf(head) };
}

/**
 * The rows of delimited text (RFC 4180), piece by piece as its bytes come; whatever the file's size, no more of it is in
 * memory than a piece and its rows.
 * @throws Refusal file-unreadable with the row
 */
export async function* readRows(bytes: AsyncIterable<Buffer>, form: TextForm): AsyncGenerator<RowsOfText> {
  const parser = new Papa.Parser({ delimiter: form.delimiter, newline: '\n', quoteChar: '"' });
  let before = 0;
  let rest = '';
  const take = (text: string, isLast: boolean): RowsOfText => {
    const { data, errors, meta } = parser.parse(text, 0, !isLast) as Papa.ParseResult<string[]>;
    const quote = errors.find(({ type }) => type === 'Quotes');
    if (quote) throw openQuotationAt(before + (quote.row ?? 0) + 1);
    rest = text.slice(meta.cursor);
    if (rest.length > longestRow) throw openQuotationAt(before + data.length + 1);
    refuseWide(data, before);
    const read = { before, rows: data };
    before += data.length;
    return read;
  };
  for await (const text of plainBreaks(decode(bytes, form.encoding))) {
    refuseNul(text, before);
    yield take(rest + text, false);
  }
  if (rest !== '') yield take(rest, true);
}

function openQuotationAt(row: number): Refusal {
  return new Refusal('file-unreadable', { row, reason: openQuotation });
}

/** All ends of lines as one, as files that were put together have several kinds of them; one may be cut between two pieces. */
async function* plainBreaks(pieces: AsyncIterable<string>): AsyncGenerator<string> {
  let held = '';
  for await (const piece of pieces) {
    const text = held + piece;
    held = text.endsWith('\r') ? '\r' : '';
    yield withPlainBreaks(held ? text.slice(0, -1) : text);
  }
  if (held) yield '\n';
}

/** Characters that are cut between two pieces are put together again; a byte order mark goes. */
async function* decode(bytes: AsyncIterable<Buffer>, encoding: Encoding): AsyncGenerator<string> {
  const decoder = iconv.getDecoder(encoding, { stripBOM: true });
  for await (const piece of bytes) {
    const text = decoder.write(piece);
    if (text !== '') yield text;
  }
  const last = decoder.end();
  if (last) yield last;
}
