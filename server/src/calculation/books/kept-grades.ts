import { calculateExact, type BookColumns, type ExactValue, type PreparedPolicy } from '#core/calculation';
import { formatDecimal, roundSticky, roundTo, type Rational } from '#core/numbers';

/** What the book, or a category of it, comes to for a student, as it is kept. */
export interface KeptValue {
  readonly percent: string | null;
  /** The same as a level, where levels are read. */
  readonly level: string | null;
  /** Numbers of the assignments that block it. */
  readonly blockedBy: readonly number[];
}

export interface KeptGrade extends KeptValue {
  readonly enrollmentId: number;
  readonly sectionId: number;
  /** By the number of the category; one with nothing to go by is not there. */
  readonly byCategory: Readonly<Record<string, KeptValue>>;
}

/** Digits that are kept; the last one is sticky, so that rounding once more gives what rounding the exact value gives. */
const keptDigits = 10;

/** Who the students of the columns are, and which assignments. */
export interface BookIds {
  readonly enrollmentIds: ArrayLike<number>;
  readonly sectionIds: ArrayLike<number>;
  readonly assignmentIds: ArrayLike<number>;
}

/** What every student of some books comes to, for keeping: the one way, in a worker and within a request. */
export function keptGrades(
  columns: BookColumns,
  prepared: readonly PreparedPolicy[],
  policyOf: ArrayLike<number>,
  { enrollmentIds, sectionIds, assignmentIds }: BookIds,
): KeptGrade[] {
  const valueOf = ({ percent, level, blockedBy }: ExactValue): KeptValue => ({
    percent: kept(percent),
    level: kept(level),
    blockedBy: blockedBy.map((at) => assignmentIds[at]!),
  });
  return calculateExact(columns, prepared, policyOf).map(({ categories, ...whole }, student) => {
    const { policy } = prepared[policyOf[student]!]!;
    const found = categories.flatMap((each, slot) =>
      each.percent === null && each.blockedBy.length === 0
        ? []
        : [[String(policy.categories[slot]!.categoryId), valueOf(each)] as const],
    );
    return {
      enrollmentId: enrollmentIds[student]!,
      sectionId: sectionIds[student]!,
      ...valueOf(whole),
      byCategory: Object.fromEntries(found),
    };
  });
}

function kept(value: Rational | null): string | null {
  return value && formatDecimal(roundTo(value, keptDigits, roundSticky));
}
