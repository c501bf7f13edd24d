import { wholeText } from '#core/formats';
import { PlatformProblem } from './platform-problem.js';

/** A row of an answer, of which nothing is believed yet. */
export type Row = Readonly<Record<string, unknown>>;

/** Where OneRoster 1.2 has its services (1EdTech; from memory). */
export const rostering = '/ims/oneroster/rostering/v1p2';
export const gradebook = '/ims/oneroster/gradebook/v1p2';

/** Longer than any name that people read; what is longer is no name. */
const longestText = 300;

/** @throws PlatformProblem where the field is missing */
export function textOf(row: Row, field: string): string {
  const text = optionalText(row, field);
  if (text !== null) return text;
  throw new PlatformProblem(`A row lacks its "${field}": ${JSON.stringify(row).slice(0, 120)}.`);
}

/** Null where the field is missing or blank. */
export function optionalText(row: Row, field: string): string | null {
  const value = row[field];
  if (typeof value === 'number') return String(value);
  if (typeof value !== 'string' || value.trim() === '') return null;
  return wholeText(value.trim(), longestText);
}
