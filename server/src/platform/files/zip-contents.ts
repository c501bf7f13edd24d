import { Refusal } from '../errors/refusal.js';

const endMark = 0x06054b50;
const entryMark = 0x02014b50;
const [endLength, entryLength] = [22, 46];
/** The end of a zip stands behind a comment of at most this many bytes. */
const longestComment = 65_535;

const mostUnpackedMegabytes = 400;
const mostEntries = 5_000;

/**
 * Refuses a zip that says it unpacks to more than fits, or whose list of contents cannot be read, before anything of it
 * is unpacked. Source: PKWARE APPNOTE, 4.3.12 and 4.3.16 (from memory).
 * @throws Refusal file-kind, file-unpacks-too-large
 */
export function refuseZipBomb(bytes: Buffer, name: string): void {
  const end = endOf(bytes);
  const broken = { name, found: 'a zip that is broken off or damaged', hint: 'Export or save it again.' };
  if (end === -1) throw new Refusal('file-kind', broken);
  const entries = bytes.readUInt16LE(end + 10);
  let at = bytes.readUInt32LE(end + 16);
  let unpacked = 0;
  for (let entry = 0; entry < entries; entry++) {
    if (at + entryLength > end || bytes.readUInt32LE(at) !== entryMark) throw new Refusal('file-kind', broken);
    unpacked += bytes.readUInt32LE(at + 24);
    at += entryLength + bytes.readUInt16LE(at + 28) + bytes.readUInt16LE(at + 30) + bytes.readUInt16LE(at + 32);
  }
  if (entries > mostEntries || unpacked > mostUnpackedMegabytes * 1024 * 1024)
    throw new Refusal('file-unpacks-too-large', { name, megabytes: mostUnpackedMegabytes });
}

function endOf(bytes: Buffer): number {
  const first = Math.max(0, bytes.length - endLength - longestComment);
  for (let at = bytes.length - endLength; at >= first; at--) if (bytes.readUInt32LE(at) === endMark) return at;
  return -1;
}
