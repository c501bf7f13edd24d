import type { Decimal } from '#core/numbers';
import type { Band, Precision } from '#core/scales';
import { gpasOfEffect, type EffectGpaPolicy } from './gpas-of-effect.js';
import type { GradeColumns } from './grade-columns.js';
import { labelNames, LabelTables } from './label-tables.js';

/** Under which bands some grades are looked at now and would be then. */
export interface ScaleChange {
  /** Those that posted grades were posted under: their points count in the GPA now. */
  readonly postedUnder: readonly Band[];
  readonly before: readonly Band[];
  readonly after: readonly Band[];
  readonly precision: Precision;
  /** Whether something changes for them; the others only count in the GPA of their students. */
  readonly isConcerned: boolean;
}

export interface LabelMove {
  /** Null where no label is found. */
  readonly from: string | null;
  readonly to: string | null;
  readonly grades: number;
}

export interface StudentEffect {
  /** As in the columns. */
  readonly student: number;
  readonly gpaBefore: Decimal | null;
  readonly gpaAfter: Decimal | null;
}

/** What other scales, or other versions of them, would do to grades that exist. */
export interface ScaleEffect {
  /** Grades for which something changes. */
  readonly grades: number;
  /** Every pair of labels that occurs, those that stay the same included. */
  readonly moves: readonly LabelMove[];
  readonly changed: number;
  readonly passAnew: number;
  readonly failAnew: number;
  /** Places in the columns of the grades whose label would change, with both labels. */
  readonly changedRows: readonly { readonly row: number; readonly from: string | null; readonly to: string | null }[];
  /** Students with a label that would change, and their GPA of these grades before and after. */
  readonly students: readonly StudentEffect[];
  /** The mean of the students' GPAs, to three digits; null where nobody has one. */
  readonly meanBefore: Decimal | null;
  readonly meanAfter: Decimal | null;
}

/**
 * The effect of other bands on grades. A label that the bands now give its percent follows the ones then; a label that
 * somebody chose against its percent, or without one, stays where the ones then still have it; one that the bands now do not
 * know is another fault and stays too. What is only computed counts with the label that the bands give. The GPA of a student
 * is that of all grades of the period, codes among them, made as for a transcript.
 */
export function effectOfScales(
  columns: GradeColumns,
  changes: readonly ScaleChange[],
  policy: EffectGpaPolicy,
): ScaleEffect {
  const names = labelNames(columns.labels, changes);
  const tables = changes.map((change) => new LabelTables(names, change));
  const width = names.length + 1;
  const [from, to] = [new Int16Array(columns.percent.length), new Int16Array(columns.percent.length)];
  const counts = new Uint32Array(width ** 2);
  const changedRows: { row: number; from: string | null; to: string | null }[] = [];
  const name = (label: number) => names[label] ?? null;
  let [grades, passAnew, failAnew] = [0, 0, 0];
  for (let row = 0; row < columns.percent.length; row++) {
    const table = tables[columns.change[row]!]!;
    from[row] = table.before(columns.label[row]!, columns.percent[row]!);
    to[row] = table.isConcerned ? table.after(from[row]!, columns.percent[row]!) : from[row]!;
    if (!table.isConcerned || columns.codePoints[row]! >= 0) continue;
    grades++;
    counts[(from[row]! + 1) * width + to[row]! + 1]!++;
    if (from[row] === to[row]) continue;
    changedRows.push({ row, from: name(from[row]!), to: name(to[row]!) });
    const [passed, passes] = [table.passesBefore(from[row]!), table.passesAfter(to[row]!)];
    if (passes && !passed) passAnew++;
    if (passed && !passes) failAnew++;
  }
  const moves = Array.from(counts, (count, pair) => ({
    from: name(Math.floor(pair / width) - 1),
    to: name((pair % width) - 1),
    grades: count,
  })).filter((move) => move.grades > 0);
  const concerned = new Set(changedRows.map(({ row }) => columns.student[row]!));
  return {
    grades,
    moves,
    changed: changedRows.length,
    passAnew,
    failAnew,
    changedRows,
    ...gpasOfEffect(columns, tables, { from, to }, policy, concerned),
  };
}
