import { setImmediate } from 'node:timers/promises';
import { strToU8, zip } from 'fflate';
import Papa from 'papaparse';
import {
  checkHead,
  exchangeFiles,
  extension,
  fieldsOf,
  filesOf,
  readManifest,
  type ExchangeFile,
  type ExchangeRow,
  type ExchangeRows,
  type ExchangeVersion,
  type Manifest,
} from '#core/exchange';
import { encodingNames, isZip, openZipOrThrow, Refusal, textOf } from '#server/platform/files';

export interface ReadZip {
  readonly manifest: Manifest;
  readonly files: ExchangeRows;
  /** Files that are not in UTF-8, as the standard wants them, and how they were read. */
  readonly encodings: readonly { readonly file: string; readonly encoding: string }[];
}

/**
 * The rows of a zip of CSV files (RFC 4180), as its manifest names them.
 * @throws Refusal file-kind, file-unpacks-too-large, exchange-unreadable
 */
export async function readZipOrThrow(bytes: Buffer, name: string): Promise<ReadZip> {
  if (!isZip(bytes)) throw unreadable(name, 'it is no zip; rosters come as a zip of CSV files');
  const encodings: { file: string; encoding: string }[] = [];
  const entries = await entriesOrThrow(bytes, name, encodings);
  const manifest = manifestOrThrow(entries, name);
  const files: Partial<Record<ExchangeFile, ExchangeRow[]>> = {};
  for (const file of exchangeFiles) {
    const isThere = entries.has(`${file}.csv`);
    if (manifest.modes[file] === 'absent') continue;
    if (!filesOf(manifest.version).includes(file))
      throw unreadable(name, `manifest.csv names ${file}, which OneRoster ${manifest.version} does not have`);
    if (!isThere)
      throw unreadable(name, `manifest.csv says ${file} is ${manifest.modes[file]}, but ${file}.csv is not there`);
    files[file] = rowsOrThrow(entries.get(`${file}.csv`)!, file, manifest.version, name);
  }
  return { manifest, files, encodings };
}

/** A zip of what we hold, every file in bulk; others are answered in between. */
export async function writeZip(rows: ExchangeRows, version: ExchangeVersion): Promise<Buffer> {
  const table: Record<string, Uint8Array> = {
    'manifest.csv': strToU8(csv([['propertyName', 'value'], ...manifestOf(version)])),
  };
  for (const file of filesOf(version)) table[`${file}.csv`] = strToU8(await csvOf(file, version, rows[file] ?? []));
  return new Promise((resolve, reject) => {
    zip(table, { mtime: new Date('2000-01-01T00:00:00Z') }, (error, bytes) =>
      error ? reject(error) : resolve(Buffer.from(bytes)),
    );
  });
}

/** Rows written out at once. */
const rowsAtOnce = 2_000;

function manifestOf(version: ExchangeVersion): string[][] {
  const absent = version === '1.1' ? ['classResources', 'courseResources', 'resources'] : ['classResources', 'courseResources', 'resources', 'userProfiles', 'userResources', 'lineItemLearningObjectiveIds', 'lineItemScoreScales', 'resultLearningObjectiveIds', 'resultScoreScales']; // prettier-ignore
  return [
    ['manifest.version', '1.0'],
    ['oneroster.version', version],
    ...[
      ...filesOf(version).map((file) => [`file.${file}`, 'bulk']),
      ...absent.map((file) => [`file.${file}`, 'absent']),
    ].toSorted(([a], [b]) => (a! < b! ? -1 : 1)),
    ['source.systemName', 'Wombat'],
    ['source.systemCode', 'wombat'],
  ];
}

/** The standard's columns in their order, then ours that any row fills. */
async function csvOf(file: ExchangeFile, version: ExchangeVersion, rows: readonly ExchangeRow[]): Promise<string> {
  const names = fieldsOf(file, version).map((field) => field.name);
  const further = new Set<string>();
  for (const row of rows) for (const name in row) if (name.startsWith(extension(''))) further.add(name);
  const head = [...names, ...further];
  const pieces = [csv([head])];
  for (let from = 0; from < rows.length; from += rowsAtOnce) {
    pieces.push(csv(rows.slice(from, from + rowsAtOnce).map((row) => head.map((name) => row[name] ?? ''))));
    await setImmediate();
  }
  return pieces.join('');
}

function csv(rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse(rows as string[][])}\r\n`;
}

/** Only files at the top of the zip are looked at. */
async function entriesOrThrow(
  bytes: Buffer,
  name: string,
  encodings: { file: string; encoding: string }[],
): Promise<ReadonlyMap<string, string>> {
  const zip = await openZipOrThrow(bytes, name);
  const entries = new Map<string, string>();
  for (const path of zip.paths) {
    if (path.endsWith('/') || path.startsWith('__MACOSX/')) continue;
    if (path.includes('/'))
      throw unreadable(name, `"${path.slice(0, 80)}" lies in a folder; the files have to lie at the top of the zip`);
    const { text, encoding } = textOf(await contentOrThrow(zip.read(path)!, name));
    if (encoding !== 'utf8') encodings.push({ file: path, encoding: encodingNames[encoding] });
    entries.set(path, text);
  }
  return entries;
}

async function contentOrThrow(content: Promise<Buffer>, name: string): Promise<Buffer> {
  try {
    return await content;
  } catch {
    throw unreadable(name, 'the zip is damaged; export it again');
  }
}

function manifestOrThrow(entries: ReadonlyMap<string, string>, name: string): Manifest {
  const text = entries.get('manifest.csv');
  if (text === undefined)
    throw unreadable(name, 'manifest.csv is missing; it says which files there are and of which version');
  const read = readManifest(parse(text, 'manifest.csv', name).slice(1));
  if (read.kind === 'fault') throw unreadable(name, `manifest.csv: ${read.says}`);
  return read.manifest;
}

function rowsOrThrow(text: string, file: ExchangeFile, version: ExchangeVersion, name: string): ExchangeRow[] {
  const [head = [], ...rows] = parse(text, `${file}.csv`, name);
  const names = head.map((each) => each.trim());
  const [fault] = checkHead(file, version, names);
  if (fault) throw unreadable(name, `${file}.csv: ${fault.says}`);
  const odd = rows.findIndex((row) => row.length !== names.length);
  if (odd !== -1)
    throw unreadable(
      name,
      `${file}.csv, line ${odd + 2}: ${rows[odd]!.length} cells where the head has ${names.length}`,
    );
  return rows.map((row) => Object.fromEntries(names.map((each, at) => [each, row[at]!.trim()])));
}

function parse(text: string, file: string, name: string): string[][] {
  if (/^\s*<(!doctype|html)/i.test(text)) throw unreadable(name, `${file} is a web page`);
  const { data, errors } = Papa.parse<string[]>(text, { delimiter: ',', skipEmptyLines: true });
  const quote = errors.find(({ type }) => type === 'Quotes');
  if (quote)
    throw unreadable(name, `${file}, line ${(quote.row ?? 0) + 1}: a quotation mark is opened and never closed`);
  return data.map((row) => row.map((cell) => cell.replaceAll('\0', '')));
}

function unreadable(name: string, reason: string): Refusal {
  return new Refusal('exchange-unreadable', { name, reason });
}
