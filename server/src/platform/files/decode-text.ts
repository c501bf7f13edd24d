import { isUtf8 } from 'node:buffer';
import iconv from 'iconv-lite';
import { Refusal } from '../errors/refusal.js';

export interface DecodedText {
  readonly text: string;
  /** As people know it: "UTF-8", "UTF-16", "Windows-1252". */
  readonly encoding: string;
}

/** The first bytes of files that are no text, and what to say of them. */
const kinds: readonly (readonly [start: string, found: string, hint: string])[] = [
  ['d0cf11e0', 'an old spreadsheet or document', 'Save it as CSV or XLSX first.'],
  ['25504446', 'a PDF', ''],
  ['89504e47', 'a picture', ''],
  ['ffd8ff', 'a picture', ''],
  ['1f8b', 'a compressed file', 'Unpack it first.'],
];

/** The name of the part that holds an encrypted workbook, as its container writes it (ECMA-376, part 2; from memory). */
const encryptedPart = Buffer.from('EncryptedPackage', 'utf16le');

/** Encodings, by the name that the decoder knows, as people know them. */
export const encodingNames = {
  utf8: 'UTF-8',
  'utf-16le': 'UTF-16',
  'utf-16be': 'UTF-16',
  'windows-1252': 'Windows-1252',
} as const;
export type Encoding = keyof typeof encodingNames;

/**
 * The text of a file: UTF-8 and UTF-16 by their marks or by what the bytes show, otherwise Windows-1252.
 * @throws Refusal file-kind, file-empty, file-unreadable
 */
export function decodeTextOrThrow(bytes: Buffer, name: string): DecodedText {
  refuseKinds(bytes, name);
  const { text, encoding } = textOf(bytes);
  refuseNoText(text, name);
  refuseNul(text, 0);
  return { text, encoding: encodingNames[encoding] };
}

/** Text of any of the encodings, without its mark, whatever it holds. */
export function textOf(bytes: Buffer): { readonly text: string; readonly encoding: Encoding } {
  const encoding = encodingOf(bytes, isUtf8(bytes));
  return { text: iconv.decode(bytes, encoding), encoding };
}

/**
 * Files that are something else, by their first bytes.
 * @throws Refusal file-kind, file-empty
 */
export function refuseKinds(head: Buffer, name: string): void {
  if (head.length === 0) throw new Refusal('file-empty', { name });
  const start = head.subarray(0, 8).toString('hex');
  const kind = kinds.find(([prefix]) => start.startsWith(prefix));
  if (!kind) return;
  if (head.includes(encryptedPart)) {
    const hint = 'Open it in a spreadsheet, take the password off, and save it as CSV or XLSX.';
    throw new Refusal('file-kind', { name, found: 'a workbook with a password', hint });
  }
  throw new Refusal('file-kind', { name, found: kind[1], hint: kind[2] });
}

/**
 * Text that holds no table: nothing at all, or a web page.
 * @throws Refusal file-kind, file-empty
 */
export function refuseNoText(text: string, name: string): void {
  if (text.trim() === '') throw new Refusal('file-empty', { name });
  if (/^\s*<(!doctype|html|\?xml|table|head|body|meta|style)\b/i.test(text)) {
    throw new Refusal('file-kind', { name, found: 'a web page', hint: 'Export it from the platform again, as CSV.' });
  }
}

/**
 * @param rowsBefore rows that stand before the text
 * @throws Refusal file-unreadable
 */
export function refuseNul(text: string, rowsBefore: number): void {
  const nul = text.indexOf('\0');
  if (nul === -1) return;
  throw new Refusal('file-unreadable', {
    row: rowsBefore + text.slice(0, nul).split('\n').length,
    reason: 'it contains NUL bytes, which text never does; export the file again',
  });
}

/** @param isAllUtf8 whether every byte of the file, not only of its head, is sound UTF-8 */
export function encodingOf(head: Buffer, isAllUtf8: boolean): Encoding {
  const [first, second] = [head[0], head[1]];
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  return unmarkedUtf16(head) ?? (isAllUtf8 ? 'utf8' : 'windows-1252');
}

/** Latin text in UTF-16 has a zero in every second byte. */
function unmarkedUtf16(bytes: Buffer): 'utf-16le' | 'utf-16be' | undefined {
  const sample = bytes.subarray(0, 512);
  const zeros = [0, 0];
  sample.forEach((byte, index) => {
    if (byte === 0) zeros[index % 2]!++;
  });
  const half = sample.length / 2;
  if (zeros[1]! > half * 0.8 && zeros[0]! < half * 0.2) return 'utf-16le';
  if (zeros[0]! > half * 0.8 && zeros[1]! < half * 0.2) return 'utf-16be';
  return undefined;
}
