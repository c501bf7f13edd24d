import type { Decimal, Percent } from '#core/numbers';
import { exportedDigits } from './read-exported-percent.js';

/**
 * The students of every section that a file may be about, in columns: a place for each enrollment, in the order of
 * student and section. Columns hold a whole district's two million in some fifty megabytes.
 */
export interface Roster {
  readonly studentIds: Int32Array;
  readonly sectionIds: Int32Array;
  readonly enrollmentIds: Int32Array;
  /** 1 for a student who left no later than the end of the period. */
  readonly hasLeft: Int32Array;
  /** By report item what a file said before, in steps of the last digit that is kept; -1 where none did. */
  readonly computed: ReadonlyMap<number, Float64Array>;
}

/** Finds people, sections and report items by what a file may call them. Keys are folded with `foldKey`. */
export interface Directory {
  readonly roster: Roster;
  /** Every student of the district, by number and by e-mail. */
  readonly students: ReadonlyMap<string, number>;
  /** Sections by their names in the file; what is not there is not known. */
  readonly sections: ReadonlyMap<string, number>;
  /** By report item the sections that report it. */
  readonly reportedIn: ReadonlyMap<number, ReadonlySet<number>>;
  /** The level at the top of the scale, for the items that take levels. */
  readonly highestLevels: ReadonlyMap<number, Decimal>;
  /** Labels and codes of the school, which a column of percents may hold by mistake. */
  readonly labels: ReadonlySet<string>;
}

/** Neither letter case and surrounding space, nor what keeps a spreadsheet from making a number of it, make two ids different. */
export function foldKey(id: string): string {
  const text = id
    .trim()
    .replace(/^="(.*)"$/, '$1')
    .replace(/^'/, '');
  return text.trim().toLowerCase();
}

/** Where a student stands in a section; -1 for nowhere. */
export function placeOf({ studentIds, sectionIds }: Roster, studentId: number, sectionId: number): number {
  let [low, high] = [0, studentIds.length - 1];
  while (low <= high) {
    const middle = (low + high) >>> 1;
    const order = studentIds[middle]! - studentId || sectionIds[middle]! - sectionId;
    if (order === 0) return middle;
    if (order < 0) low = middle + 1;
    else high = middle - 1;
  }
  return -1;
}

/** A percent of at most ten digits in steps of the last of them: 86.4 is 864,000,000,000. Exact, as 200 % is far below 2⁵³. */
export function stepsOf({ units, digits }: Percent): number {
  return Number(units) * 10 ** (exportedDigits - digits);
}
