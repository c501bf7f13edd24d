import { strToU8, zipSync } from 'fflate';
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
import { isZip, openZipOrThrow, Refusal } from '#server/platform';

export interface ReadZip {
  readonly manifest: Manifest;
  readonly files: ExchangeRows;
}

/**
 * The rows of a zip of CSV files (RFC 4180), as its manifest names them.
 * @throws Refusal file-kind, file-unpacks-too-large, exchange-unreadable
 */
export async function readZipOrThrow(bytes: Buffer, name: string): Promise<ReadZip> {
  if (!isZip(bytes)) throw unreadable(name, 'it is no zip; rosters come as a zip of CSV files');
  const entries = await entriesOrThrow(bytes, name);
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
  return { manifest, files };
}

/** A zip of what we hold, every file in bulk. */
export function writeZip(rows: ExchangeRows, version: ExchangeVersion): Buffer {
  const files = filesOf(version);
  const table: Record<string, Uint8Array> = {
    'manifest.csv': strToU8(csv([['propertyName', 'value'], ...manifestOf(version)])),
  };
  for (const file of files) table[`${file}.csv`] = strToU8(csvOf(file, version, rows[file] ?? []));
  return Buffer.from(zipSync(table, { mtime: new Date('2000-01-01T00:00:00Z') }));
}

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
function csvOf(file: ExchangeFile, version: ExchangeVersion, rows: readonly ExchangeRow[]): string {
  const names = fieldsOf(file, version).map((field) => field.name);
  const further = new Set(rows.flatMap((row) => Object.keys(row).filter((name) => name.startsWith(extension('')))));
  const head = [...names, ...further];
  return csv([head, ...rows.map((row) => head.map((name) => row[name] ?? ''))]);
}

function csv(rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse(rows as string[][])}\r\n`;
}

/** Only files at the top of the zip are looked at. */
async function entriesOrThrow(bytes: Buffer, name: string): Promise<ReadonlyMap<string, string>> {
  const zip = await openZipOrThrow(bytes, name);
  const entries = new Map<string, string>();
  for (const path of zip.paths) {
    if (path.endsWith('/') || path.startsWith('__MACOSX/')) continue;
    if (path.includes('/'))
      throw unreadable(name, `"${path.slice(0, 80)}" lies in a folder; the files have to lie at the top of the zip`);
    entries.set(path, await textOrThrow(zip.read(path)!, name));
  }
  return entries;
}

async function textOrThrow(content: Promise<Buffer>, name: string): Promise<string> {
  try {
    return (await content).toString('utf8').replace(/^\uFEFF/, '');
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
