import type { Percent } from '#core/numbers';
import type { FileReading, GradeColumn } from './file-reading.js';
import { findPlace, type RowsByPlace } from './find-place.js';
import { readExportedPercent } from './read-exported-percent.js';
import { foldKey, stepsOf, type Directory, type Roster } from './roster.js';

/** What accepting the file would do with a value; only "new" and "changed" write anything. */
export const rowOutcomes = [
  'new',
  'changed',
  'same',
  'blank',
  'unknown',
  'unknown section',
  'not in section',
  'not reported',
  'withdrawn',
  'out of range',
  'label',
  'unreadable',
  'twice',
] as const;
export type RowOutcome = (typeof rowOutcomes)[number];

/** Accepting the file changes something. */
export function isWritten(outcome: RowOutcome): boolean {
  return outcome === 'new' || outcome === 'changed';
}

/** Something stands there that is not taken. */
export function isLeftOut(outcome: RowOutcome): boolean {
  return !isWritten(outcome) && outcome !== 'same' && outcome !== 'blank';
}

/** Counts before anything is counted. */
export function noOutcomes(): Record<RowOutcome, number> {
  return Object.fromEntries(rowOutcomes.map((outcome) => [outcome, 0])) as Record<RowOutcome, number>;
}

/** How many values have an outcome of a kind. */
export function countOutcomes(
  { counts }: Pick<FilePlan, 'counts'>,
  isOfKind: (outcome: RowOutcome) => boolean,
): number {
  return rowOutcomes.filter(isOfKind).reduce((sum, outcome) => sum + counts[outcome], 0);
}

/** What the plan of a file comes to. */
export interface FilePlan {
  readonly counts: Readonly<Record<RowOutcome, number>>;
  /** Students of the sections in the file who are not in it; the first names, and how many altogether. */
  readonly notInFile: { readonly count: number; readonly names: readonly string[] };
  /** Names of sections in the file that are not known, with their rows; the commonest first. */
  readonly unknownSections: readonly { readonly name: string; readonly rows: number }[];
}

/** A line of the file's ledger: one value of one row. */
export interface PlannedValue {
  /** Line of the table, 1 for the first of the file. */
  readonly row: number;
  readonly grade: GradeColumn;
  readonly outcome: RowOutcome;
  /** Place on the roster; -1 where nobody is found. */
  readonly place: number;
  /** What the row calls the student. */
  readonly id: string;
  readonly value: string;
  readonly after: Percent | null;
  /** The other rows about the same student, for "twice". */
  readonly sameAs: readonly number[];
}

/**
 * Decides every value of a row, without writing. A person who is in the file twice is not written at all, from either
 * row: which of the two is right is not for us to choose.
 */
export function planFileRow(
  row: number,
  cells: readonly string[],
  reading: FileReading,
  directory: Directory,
  rows: RowsByPlace,
): PlannedValue[] {
  const found = findPlace(cells, reading, directory);
  const place = typeof found === 'number' ? found : -1;
  const sameAs = place === -1 ? [] : rows.others(place, row);
  const ofRow = typeof found === 'number' ? leftOut(directory.roster, place, sameAs) : found;
  return reading.grades.map((grade) => {
    const value = cells[grade.column] ?? '';
    const { outcome, after } = ofRow ? left(ofRow) : planValue(value, place, grade, directory);
    return {
      row,
      grade,
      outcome,
      place,
      id: (cells[reading.idColumn] ?? '').trim(),
      value: value.trim(),
      after,
      sameAs,
    };
  });
}

type Decision = Pick<PlannedValue, 'outcome' | 'after'>;

const left = (outcome: RowOutcome): Decision => ({ outcome, after: null });

/** Why nothing of the row is taken, whatever stands in it. */
function leftOut({ hasLeft }: Roster, place: number, sameAs: readonly number[]): RowOutcome | undefined {
  if (sameAs.length > 0) return 'twice';
  return hasLeft[place] === 1 ? 'withdrawn' : undefined;
}

function planValue(
  value: string,
  place: number,
  { itemId }: GradeColumn,
  { roster, reportedIn, labels, highestLevels }: Directory,
): Decision {
  const read = readExportedPercent(value, highestLevels.get(itemId));
  if (read.kind === 'blank') return left('blank');
  if (!reportedIn.get(itemId)?.has(roster.sectionIds[place]!)) return left('not reported');
  if (read.kind === 'percent') {
    const before = roster.computed.get(itemId)?.[place] ?? -1;
    const outcome = before === -1 ? 'new' : before === stepsOf(read.percent) ? 'same' : 'changed';
    return { outcome, after: read.percent };
  }
  if (read.code !== 'percent-unreadable' && read.code !== 'percent-too-exact') return left('out of range');
  return left(labels.has(foldKey(value)) ? 'label' : 'unreadable');
}
