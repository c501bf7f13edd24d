import type { ScoreFlag } from '#core/calculation';
import type { PeriodKind } from '#core/calendar';
import { extension, type ExchangeRow } from './exchange-format.js';

const sessionTypes: Readonly<Record<PeriodKind, string>> = {
  year: 'schoolYear',
  semester: 'semester',
  trimester: 'term',
  term: 'term',
  quarter: 'gradingPeriod',
};

export function sessionTypeOf(kind: PeriodKind): string {
  return sessionTypes[kind];
}

/** Ours by our own column, else by the standard's word: a grading period is a quarter to us, a term a term. */
export function periodKindOf(row: ExchangeRow): PeriodKind {
  const stated = row[extension('kind')];
  const known = (Object.keys(sessionTypes) as PeriodKind[]).find((kind) => kind === stated);
  if (known) return known;
  if (row['type'] === 'schoolYear') return 'year';
  return row['type'] === 'gradingPeriod' ? 'quarter' : (row['type'] as 'semester' | 'term');
}

/** What the standard says of a score: its status, and what Wombat adds where a flag has no word there. */
export function resultFieldsOf(points: string | null, flag: ScoreFlag | null): ExchangeRow {
  const statuses: Partial<Record<ScoreFlag, string>> = {
    exempt: 'exempt',
    missing: 'not submitted',
    collected: 'submitted',
  };
  const scoreStatus = (flag && statuses[flag]) ?? (points === null ? 'not submitted' : 'fully graded');
  const words = Object.fromEntries(
    (['late', 'incomplete', 'missing'] as const).map((word) => [word, flag === word ? 'true' : '']),
  );
  return { scoreStatus, score: points ?? '', [extension('flag')]: flag ?? '', ...words };
}

/** The flag of a result: our own where it is stated, else what its status says. */
export function flagOf(row: ExchangeRow): ScoreFlag | null {
  const stated = row[extension('flag')];
  if (stated !== undefined) return stated === '' ? null : (stated as ScoreFlag);
  if (row['scoreStatus'] === 'exempt') return 'exempt';
  if (row['score'] !== '') return null;
  return row['scoreStatus'] === 'submitted' ? 'collected' : row['scoreStatus'] === 'not submitted' ? 'missing' : null;
}

/** A year of school as the standard has it, in two digits; other words as they are. */
export function gradesOf(yearGroup: string): string {
  return yearGroup.replace(/^([1-9])$/, '0$1');
}

/** A year of school as we have it: "9" for "09". */
export function yearGroupOf(grades: string): string {
  return grades.replace(/^0(\d)$/, '$1');
}

/** The number of a section: our own column, else the last number in its code or title; undefined where there is none. */
export function sectionNumberOf(row: ExchangeRow): number | undefined {
  for (const words of [row[extension('number')], row['classCode'], row['title']]) {
    const found = /(\d{1,4})\D*$/.exec(words ?? '')?.[1];
    if (found !== undefined) return Number(found);
  }
  return undefined;
}
