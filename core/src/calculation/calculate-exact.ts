import type { Rational } from '#core/numbers';
import type { BookColumns } from './book-columns.js';
import { exactPercent } from './exact-percent.js';
import type { PreparedPolicy } from './prepare-policy.js';
import { StudentSums } from './student-sums.js';
import { treatments } from './treat-score.js';

const blocks = treatments.indexOf('blocks');

/** What the calculation found for one student of many. */
export interface ExactGrade {
  /** Null without evidence and while something blocks it. */
  readonly percent: Rational | null;
  /** The positions of the assignments that block it. */
  readonly blockedBy: readonly number[];
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
    if (!sums.isBlocked) return { percent: exactPercent(sums, columns, student, prepared) ?? null, blockedBy: [] };
    const from = columns.starts[student]!;
    const own = columns.assignment.subarray(from, columns.starts[student + 1]);
    return { percent: null, blockedBy: [...own].filter((_assignment, at) => sums.treatment[at] === blocks) };
  });
}
