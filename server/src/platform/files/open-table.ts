import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, readFile, stat } from 'node:fs/promises';
import iconv from 'iconv-lite';
import Papa from 'papaparse';
import { firstRowOfTable } from '#core/files';
import { Refusal } from '../errors/refusal.js';
import { encodingNames, encodingOf, refuseKinds, refuseNoText, refuseNul } from './decode-text.js';
import { refuseWide, withPlainBreaks } from './parse-table.js';
import { textFormOf, type TextForm } from './read-rows.js';
import { isZip } from './open-zip.js';
import { readWorkbookInThread } from './workbook/read-workbook-in-thread.js';
import type { SheetName } from './workbook/workbook-parts.js';

type Rows = readonly (readonly string[])[];

/** A file that turned out to hold a table, with its first rows read. */
export interface OpenTable {
  readonly byteSize: number;
  readonly sha256: string;
  /** As people know it. */
  readonly encoding: string;
  readonly form: TextForm;
  /** The first rows of the file, all of a small one. */
  readonly firstRows: Rows;
  /** The sheets of a workbook, and the one that was read; none for text. */
  readonly sheets: readonly SheetName[];
  readonly sheet: string | null;
  /** The rows as text in that form: the file itself, or what a workbook holds. */
  readonly bytes: () => AsyncIterable<Buffer>;
}

/** Bytes that are read at first. */
const headBytes = 1024 * 1024;
const firstRows = 1000;
const pieceBytes = 256 * 1024;

/**
 * Looks at a file on the disk as far as is needed to say what table it holds; of text, only its beginning is parsed.
 * @param mostWorkbookMegabytes of a workbook, which is unpacked in memory
 * @throws Refusal file-empty, file-kind, file-no-columns, file-too-large, file-unreadable, file-unpacks-too-large
 */
export async function openTableOrThrow(path: string, name: string, mostWorkbookMegabytes: number): Promise<OpenTable> {
  const { size } = await stat(path);
  const head = await readHead(path);
  if (isZip(head)) {
    if (size > mostWorkbookMegabytes * 1024 * 1024)
      throw new Refusal('workbook-too-large', { limit: mostWorkbookMegabytes });
    return openWorkbookOrThrow(await readFile(path), name, null);
  }
  refuseKinds(head, name);
  const { sha256, isUtf8 } = await readWhole(path);
  const encoding = encodingOf(head, isUtf8);
  const text = withPlainBreaks(iconv.getDecoder(encoding, { stripBOM: true }).write(head));
  refuseNoText(text, name);
  refuseNul(text, 0);
  const form = textFormOf(text, encoding);
  return {
    byteSize: size,
    sha256,
    encoding: encodingNames[encoding],
    form,
    firstRows: tableOrThrow(firstRowsOf(text, form, size > head.length), name),
    sheets: [],
    sheet: null,
    bytes: () => createReadStream(path, { highWaterMark: pieceBytes }) as AsyncIterable<Buffer>,
  };
}

/**
 * A sheet of a workbook as a table; its rows are kept as text, as they were read.
 * @param sheet null for the first that is not hidden
 */
export async function openWorkbookOrThrow(bytes: Buffer, name: string, sheet: string | null): Promise<OpenTable> {
  const book = await readWorkbookInThread(bytes, name, sheet);
  const text = Buffer.from(book.text);
  const form: TextForm = { encoding: 'utf8', delimiter: ',' };
  const rows = firstRowsOf(text.subarray(0, headBytes).toString(), form, text.length > headBytes);
  // Of several sheets the first need not be the one that is meant: a person says which.
  const isMeant = sheet !== null || book.sheets.filter(({ isHidden }) => !isHidden).length < 2;
  return {
    byteSize: bytes.length,
    sha256: createHash('sha256').update(bytes).digest('hex'),
    encoding: 'XLSX',
    form,
    firstRows: isMeant ? tableOrThrow(rows, name) : rows,
    sheets: book.sheets,
    sheet: book.sheet,
    bytes: async function* () {
      for (let from = 0; from < text.length; from += pieceBytes) yield text.subarray(from, from + pieceBytes);
    },
  };
}

/** The first rows of a text in a form, all of a short one. */
function firstRowsOf(text: string, { delimiter }: TextForm, isCut: boolean): Rows {
  const parser = new Papa.Parser({ delimiter, newline: '\n', quoteChar: '"', preview: firstRows });
  const { data } = parser.parse(text, 0, isCut) as Papa.ParseResult<string[]>;
  refuseWide(data, 0);
  return data;
}

function tableOrThrow(rows: Rows, name: string): Rows {
  if (rows.length === 0) throw new Refusal('file-empty', { name });
  if (firstRowOfTable(rows) === undefined) throw new Refusal('file-no-columns', { name });
  return rows;
}

async function readHead(path: string): Promise<Buffer> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(headBytes), 0, headBytes, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

/** Its fingerprint, and whether all of it is sound UTF-8. */
async function readWhole(path: string): Promise<{ readonly sha256: string; readonly isUtf8: boolean }> {
  const hash = createHash('sha256');
  const decoder = newDecoder();
  let isUtf8 = true;
  for await (const piece of createReadStream(path, { highWaterMark: pieceBytes }) as AsyncIterable<Buffer>) {
    hash.update(piece);
    isUtf8 &&= isSound(decoder, piece);
  }
  return { sha256: hash.digest('hex'), isUtf8: isUtf8 && isSound(decoder) };
}

function isSound(decoder: ReturnType<typeof newDecoder>, piece?: Buffer): boolean {
  try {
    decoder.decode(piece, { stream: piece !== undefined });
    return true;
  } catch {
    return false;
  }
}

function newDecoder() {
  return new TextDecoder('utf-8', { fatal: true });
}
