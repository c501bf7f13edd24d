import { mostPoints } from '#core/calculation';
import { parseDay } from '#core/calendar';
import { compareDecimals, parseDecimal } from '#core/numbers';
import {
  extensionStart,
  fieldsOf,
  ownFields,
  type ExchangeField,
  type ExchangeFile,
  type ExchangeRow,
  type ExchangeVersion,
} from './exchange-format.js';
import type { FileMode } from './read-manifest.js';

export interface ExchangeFault {
  readonly field: string;
  /** What is wrong and what would be right. */
  readonly says: string;
}

/** What is wrong with a file's head: a field that is missing, or one that neither version knows. */
export function checkHead(file: ExchangeFile, version: ExchangeVersion, head: readonly string[]): ExchangeFault[] {
  const fields = fieldsOf(file, version);
  const known = new Set(fields.map(({ name }) => name));
  const missing = fields.filter(({ name, isRequired }) => isRequired && !head.includes(name));
  const strange = head.filter((name) => !known.has(name) && !name.startsWith(extensionStart));
  const twice = head.filter((name, at) => head.indexOf(name) !== at);
  return [
    ...missing.map(({ name }) => ({ field: name, says: `the column ${name} is missing` })),
    ...strange.map((name) => ({ field: name, says: `OneRoster ${version} has no column "${name}" in ${file}.csv` })),
    ...twice.map((name) => ({ field: name, says: `the column ${name} is there twice` })),
  ];
}

/** Ids that a reference may lead to: of rows in the same zip and of what is here already. */
export type KnownIds = Readonly<Partial<Record<ExchangeFile, ReadonlySet<string>>>>;

/** What is wrong with one row, field by field. */
export function checkRow(
  file: ExchangeFile,
  version: ExchangeVersion,
  mode: FileMode,
  row: ExchangeRow,
  known: KnownIds,
): ExchangeFault[] {
  const status = row['status'] ?? '';
  const faults: ExchangeFault[] = [];
  if (mode === 'delta' && status === '')
    faults.push({ field: 'status', says: 'a delta file says active or tobedeleted' });
  const isDeleted = status === 'tobedeleted';
  for (const field of [...fieldsOf(file, version), ...ownFields(file)]) {
    const value = row[field.name] ?? '';
    const says = value === '' ? missing(field, isDeleted) : faultOf(field, value, known, isDeleted);
    if (says) faults.push({ field: field.name, says });
  }
  return faults;
}

function missing({ name, isRequired }: ExchangeField, isDeleted: boolean): string | undefined {
  return isRequired && (!isDeleted || name === 'sourcedId') ? `${name} is blank` : undefined;
}

function faultOf({ kind }: ExchangeField, value: string, known: KnownIds, isDeleted: boolean): string | undefined {
  switch (kind.is) {
    case 'id':
      if (/\p{Cc}/u.test(value)) return 'an id has no control characters';
      return value.length > 255 ? 'an id has at most 255 characters' : undefined;
    case 'day':
      return parseDay(value.slice(0, 10)) ? undefined : `"${value}" is no day such as 2026-01-16`;
    case 'number':
      return parseDecimal(value) ? undefined : `"${value}" is no number`;
    case 'credits':
      return /^\d{1,2}(\.\d{1,4})?$/.test(value)
        ? undefined
        : `"${value}" is not from 0 to 99 with at most four decimals`;
    case 'pattern':
      return kind.pattern.test(value) ? undefined : `"${value}" is not ${kind.says}`;
    case 'points': {
      const points = parseDecimal(value);
      if (!points) return `"${value}" is no number`;
      // what is kept has two decimals, and nothing is rounded unasked
      const isExact = points.digits <= 2 || points.units % 10n ** BigInt(points.digits - 2) === 0n;
      if (!isExact) return `"${value}" has more than two decimals; points have at most two`;
      const isInRange = points.units >= 0n && compareDecimals(points, mostPoints) <= 0;
      return isInRange ? undefined : `"${value}" is not from 0 to 9999.99`;
    }
    case 'yesNo':
      return /^(true|false)$/i.test(value) ? undefined : `"${value}" is neither true nor false`;
    case 'oneOf':
      return kind.words.includes(value) ? undefined : `"${value}" is none of ${kind.words.join(', ')}`;
    case 'reference': {
      if (isDeleted) return undefined;
      const ids = kind.isList ? listOf(value) : [value];
      const lost = ids.find((id) => !known[kind.to]?.has(id));
      return lost === undefined ? undefined : `"${lost}" is in no row of ${kind.to}.csv, nor known here`;
    }
    default:
      return undefined;
  }
}

/** The ids of a list, which stand with commas between them. */
export function listOf(value: string): string[] {
  return value
    .split(',')
    .map((each) => each.trim())
    .filter((each) => each !== '');
}
