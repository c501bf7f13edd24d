import Papa from 'papaparse';
import { Refusal } from '../errors/refusal.js';
import { decodeTextOrThrow } from './decode-text.js';
import { parseTableOrThrow, tableOfRowsOrThrow, type FileTable } from './parse-table.js';
import { isZip } from './open-zip.js';
import { readWorkbookInThread, type WorkbookAsText } from './workbook/read-workbook-in-thread.js';

/**
 * The table of an exported file with its header found: delimited text in any usual encoding, or the first sheet of a
 * workbook.
 * @throws Refusal file-empty, file-kind, file-no-columns, file-unreadable, file-unpacks-too-large
 */
export async function readTableOrThrow(
  bytes: Buffer,
  name: string,
): Promise<{ readonly table: FileTable; readonly encoding: string }> {
  if (isZip(bytes)) {
    const book = await readWorkbookInThread(bytes, name, null);
    if (book.text.length === 0) throw new Refusal('file-empty', { name });
    return { table: tableOfRowsOrThrow(rowsOf(book), name), encoding: 'XLSX' };
  }
  const { text, encoding } = decodeTextOrThrow(bytes, name);
  return { table: parseTableOrThrow(text, name), encoding };
}

function rowsOf({ text }: WorkbookAsText): string[][] {
  return Papa.parse<string[]>(Buffer.from(text).toString().slice(0, -1), { delimiter: ',', newline: '\n' }).data;
}
