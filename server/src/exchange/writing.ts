import type { ExchangeFile, ExchangeRow, PlannedExchangeRow } from '#core/exchange';
import type { Queries } from '#server/platform';
import type { ExchangeIds } from './exchange-ids.js';
import type { SharedByRows } from './plan-in-thread.js';

/** What a stretch of a zip's rows becomes, inside one transaction. */
export interface Writing extends SharedByRows {
  readonly queries: Queries;
  readonly ids: ExchangeIds;
  readonly today: string;
  /** The rows that came to that, in the words in which they are held here. */
  readonly of: (file: ExchangeFile, ...outcomes: PlannedExchangeRow['outcome'][]) => readonly ExchangeRow[];
}

/** A row, and a school that has it. */
export interface AtSchool {
  readonly row: ExchangeRow;
  readonly schoolId: number;
}

/** Of all rows of a kind that several schools may have, each with each school that has to have it and does not yet. */
export function missingAtSchools(
  { all, using, ids }: Writing,
  file: 'academicSessions' | 'courses' | 'categories',
  kind: 'period' | 'course' | 'category',
): AtSchool[] {
  return (all[file] ?? []).flatMap((row) =>
    [...(using[file].get(row['sourcedId']!) ?? [])].flatMap((school) => {
      const schoolId = ids.of('school', school);
      if (schoolId === undefined || ids.of(kind, row['sourcedId'], schoolId) !== undefined) return [];
      return [{ row, schoolId }];
    }),
  );
}

/** The rows that changed, at each school that has them. */
export function changedAtSchools(
  { of, using, ids }: Writing,
  file: 'academicSessions' | 'courses' | 'categories',
  kind: 'period' | 'course' | 'category',
): (AtSchool & { readonly id: number })[] {
  return of(file, 'changed').flatMap((row) =>
    [...(using[file].get(row['sourcedId']!) ?? [])].flatMap((school) => {
      const schoolId = ids.of('school', school);
      const id = schoolId === undefined ? undefined : ids.of(kind, row['sourcedId'], schoolId);
      return schoolId === undefined || id === undefined ? [] : [{ row, schoolId, id }];
    }),
  );
}

/** Rows written with one statement. */
const rowsAtOnce = 5_000;

export async function inPieces(rows: readonly object[], write: (piece: string) => Promise<unknown>): Promise<void> {
  for (let from = 0; from < rows.length; from += rowsAtOnce)
    await write(JSON.stringify(rows.slice(from, from + rowsAtOnce)));
}
