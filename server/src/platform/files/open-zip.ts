import type { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { crc32 } from 'node:zlib';
import { fromBufferPromise, type Entry, type ZipFile } from 'yauzl';
import { Refusal } from '../errors/refusal.js';

const mostUnpackedMegabytes = 400;
const mostEntries = 5_000;

/** A zip whose list of contents was read and found harmless. */
export interface OpenZip {
  readonly paths: readonly string[];
  /** The content of a file, piece by piece; undefined where the zip has no such path. Fails where it is damaged. */
  open(path: string): Promise<AsyncIterable<Buffer>> | undefined;
  /** The whole content of a file. */
  read(path: string): Promise<Buffer> | undefined;
}

/** Whether the file is a zip, as a workbook is. */
export function isZip(bytes: Buffer): boolean {
  return bytes.subarray(0, 4).toString('hex') === '504b0304';
}

/**
 * Reads the list of contents. A zip that unpacks to more than fits, or that names a path outside of itself, is refused
 * before anything of it is unpacked; a file that holds more than its list says fails where it is read.
 * @throws Refusal file-kind, file-unpacks-too-large
 */
export async function openZipOrThrow(bytes: Buffer, name: string): Promise<OpenZip> {
  let zip: ZipFile;
  const entries = new Map<string, Entry>();
  let unpacked = 0;
  try {
    zip = await fromBufferPromise(bytes, { lazyEntries: true });
    for await (const entry of zip.eachEntry()) {
      entries.set(entry.fileName, entry);
      unpacked += entry.uncompressedSize;
      if (entries.size > mostEntries || unpacked > mostUnpackedMegabytes * 1024 * 1024)
        throw new Refusal('file-unpacks-too-large', { name, megabytes: mostUnpackedMegabytes });
    }
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw brokenZip(name, error as Error);
  }
  const open = (path: string) => {
    const entry = entries.get(path);
    return entry && zip.openReadStreamPromise(entry).then((stream) => verified(stream, entry));
  };
  return {
    paths: [...entries.keys()],
    open,
    read: (path) => open(path)?.then(buffer),
  };
}

function brokenZip(name: string, { message }: Error): Refusal {
  const path = /^(?:invalid relative|absolute) path: (.*)$/s.exec(message)?.[1];
  return path === undefined
    ? new Refusal('file-kind', { name, found: 'a damaged or incomplete zip', hint: 'Export or save it again.' })
    : new Refusal('file-kind', {
        name,
        found: `a zip with "${path.slice(0, 80)}", which leads out of it`,
        hint: 'Nothing of it was read.',
      });
}

/** The list of contents says which checksum the content has (PKWARE APPNOTE 4.4.7, from memory). */
async function* verified(stream: Readable, entry: Entry): AsyncGenerator<Buffer> {
  let sum = 0;
  for await (const piece of stream as AsyncIterable<Buffer>) {
    sum = crc32(piece, sum);
    yield piece;
  }
  if (sum !== entry.crc32) throw new Error(`"${entry.fileName}" does not match its checksum`);
}
