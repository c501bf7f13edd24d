import { multiply, rational, type Rational } from '#core/numbers';
import type { BookColumns } from './book-columns.js';
import { categoryPercent, exactPercent } from './exact-percent.js';
import type { PreparedPolicy } from './prepare-policy.js';
import { StudentSums } from './student-sums.js';
import { treatments } from './treat-score.js';

const blocks = treatments.indexOf('blocks');

/** What a book, or one category of it, comes to for a student. */
export interface ExactValue {
  /** Null without evidence and while something blocks it. */
  readonly percent: Rational | null;
  /** The same as a level; null where no levels are read. */
  readonly level: Rational | null;
  /** The positions of the assignments that block it. */
  readonly blockedBy: readonly number[];
}

/** What the calculation found for one student of many. */
export interface ExactGrade extends ExactValue {
  /** By the position of the category in the policy: what it comes to by itself, its limit applied. */
  readonly categories: readonly ExactValue[];
}

/** The exact percents of many students, for keeping. `policyOf` gives the position of each student's policy. */
export function calculateExact(
  columns: BookColumns,
  policies: readonly PreparedPolicy[],
  policyOf: ArrayLike<number>,
): ExactGrade[] {
  const sums = new StudentSums(columns);
  return Array.from({ length: columns.starts.length - 1 }, (_each, student): ExactGrade => {
    const prepared = policies[policyOf[student]!]!;
    sums.fill(student, prepared);
    const blockedBy = blockedIn(sums, columns, student);
    const percent = sums.isBlocked ? undefined : exactPercent(sums, columns, student, prepared);
    return {
      ...valueOf(percent, blockedBy, prepared),
      categories: prepared.policy.categories.map((_category, slot) => {
        const by = blockedBy.filter((assignment) => columns.slot[assignment] === slot);
        const own = by.length > 0 ? undefined : categoryPercent(sums, columns, student, prepared, slot)?.limited;
        return valueOf(own, by, prepared);
      }),
    };
  });
}

function valueOf(
  percent: Rational | undefined,
  blockedBy: readonly number[],
  { isOfEvidence, outOf }: PreparedPolicy,
): ExactValue {
  const level = percent && isOfEvidence ? multiply(percent, rational(BigInt(outOf), 10_000n)) : null;
  return { percent: percent ?? null, level, blockedBy };
}

function blockedIn(sums: StudentSums, columns: BookColumns, student: number): number[] {
  if (!sums.isBlocked) return [];
  const from = columns.starts[student]!;
  const own = columns.assignment.subarray(from, columns.starts[student + 1]);
  return [...own].filter((_assignment, at) => sums.treatment[at] === blocks);
}
