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

/**
 * The text of a file: UTF-8 and UTF-16 by their marks or by what the bytes show, otherwise Windows-1252.
 * @throws Refusal file-kind, file-empty, file-unreadable
 */
export function decodeTextOrThrow(bytes: Buffer, name: string): DecodedText {
  if (bytes.length === 0) throw new Refusal('file-empty', { name });
  const start = bytes.subarray(0, 8).toString('hex');
  const kind = kinds.find(([prefix]) => start.startsWith(prefix));
  if (kind) throw new Refusal('file-kind', { name, found: kind[1], hint: kind[2] });
  const decoded = decode(bytes);
  const withoutMark = decoded.text.replace(/^\uFEFF/, '');
  if (withoutMark.trim() === '') throw new Refusal('file-empty', { name });
  if (/^\s*<(!doctype|html|\?xml)/i.test(withoutMark)) {
    throw new Refusal('file-kind', { name, found: 'a web page', hint: 'Export it from the platform again, as CSV.' });
  }
  const nul = withoutMark.indexOf('\0');
  if (nul !== -1) {
    const row = withoutMark.slice(0, nul).split('\n').length;
    throw new Refusal('file-unreadable', {
      row,
      reason: 'it holds NUL bytes, which text never does; export the file again',
    });
  }
  return { ...decoded, text: withoutMark };
}

function decode(bytes: Buffer): DecodedText {
  const [first, second] = [bytes[0], bytes[1]];
  if (first === 0xff && second === 0xfe) return { text: iconv.decode(bytes, 'utf-16le'), encoding: 'UTF-16' };
  if (first === 0xfe && second === 0xff) return { text: iconv.decode(bytes, 'utf-16be'), encoding: 'UTF-16' };
  const utf16 = unmarkedUtf16(bytes);
  if (utf16) return { text: iconv.decode(bytes, utf16), encoding: 'UTF-16' };
  const text = bytes.toString('utf8');
  return text.includes('\uFFFD') && !bytes.includes('\uFFFD')
    ? { text: iconv.decode(bytes, 'windows-1252'), encoding: 'Windows-1252' }
    : { text, encoding: 'UTF-8' };
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
