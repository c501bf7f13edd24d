import { divide, rational, unitsAt, type Decimal, type Rational } from '#core/numbers';
import type { BookColumns } from './book-columns.js';
import { categoryPercent, exactPercent } from './exact-percent.js';
import { scoreFlags, type CalculationPolicy, type ScoreFlag } from './policy.js';
import { noSlot, preparePolicy, slotOf, type PreparedPolicy } from './prepare-policy.js';
import { standingOf, type Standing } from './standing.js';
import { StudentSums } from './student-sums.js';
import { isExtraBit, isNotCountedBit, treatments, type Treatment } from './treat-score.js';

/** One score of a student, or its place while there is none yet. */
export interface BookScore {
  readonly assignmentId: number;
  readonly categoryId: number | null;
  /** At most two decimals, 0 or more; null where nothing is recorded. */
  readonly points: Decimal | null;
  readonly flag: ScoreFlag | null;
  /** 0 or more; an assignment out of 0 only adds. */
  readonly possible: Decimal;
  readonly isExtra: boolean;
  readonly isCounted: boolean;
}

/** What became of one score. */
export interface ScoreWorkings {
  readonly assignmentId: number;
  readonly treatment: Treatment;
  readonly isDropped: boolean;
}

/** What one category came to. */
export interface CategoryWorkings {
  readonly categoryId: number;
  readonly weight: Decimal;
  /** Its part of the whole, in percent, once the weights of categories without scores are shared out; null when it has none. */
  readonly share: Rational | null;
  /** Of the scores that counted. */
  readonly earned: Decimal;
  readonly possible: Decimal;
  /** Earned on top, out of nothing. */
  readonly extra: Decimal;
  /** How many scores counted, and how many were dropped. */
  readonly counted: number;
  readonly dropped: number;
  readonly percent: Rational | null;
  /** The percent after the category's limit. */
  readonly limited: Rational | null;
  readonly level: Rational | null;
  readonly standing: Standing | null;
}

/** How a grade came about, as data: the interface prints it. */
export interface GradeWorkings {
  /** The exact percent; null without evidence or while something blocks it. */
  readonly percent: Rational | null;
  /** Whether the limit on the whole held the percent down. */
  readonly isLimited: boolean;
  /** The assignments that block the grade. */
  readonly blockedBy: readonly number[];
  readonly scores: readonly ScoreWorkings[];
  readonly categories: readonly CategoryWorkings[];
}

/**
 * The grade of one student, with everything that led to it. The same steps as for a whole district, so that the two cannot
 * differ. The scores are in the order of their due dates, which only the methods of evidence look at.
 */
export function explainGrade(scores: readonly BookScore[], policy: CalculationPolicy): GradeWorkings {
  const prepared = preparePolicy(policy);
  const columns = columnsOf([scores], policy);
  const sums = new StudentSums(columns);
  sums.fill(0, prepared);
  const percent = sums.isBlocked ? undefined : exactPercent(sums, columns, 0, prepared);
  const unlimited = percent && exactPercent(sums, columns, 0, { ...prepared, cap: Infinity })!;
  const explained = scores.map(({ assignmentId }, at): ScoreWorkings => ({
    assignmentId,
    treatment: treatments[sums.treatment[at]!]!,
    isDropped: sums.dropped[at] === 1,
  }));
  return {
    percent: percent ?? null,
    isLimited:
      percent !== undefined &&
      percent.numerator * unlimited!.denominator !== unlimited!.numerator * percent.denominator,
    blockedBy: explained.filter(({ treatment }) => treatment === 'blocks').map(({ assignmentId }) => assignmentId),
    scores: explained,
    categories: explainCategories(sums, columns, prepared),
  };
}

/** The columns of a few students, each score with an assignment of its own. */
export function columnsOf(
  students: readonly (readonly BookScore[])[],
  policy: Pick<CalculationPolicy, 'categories'>,
): BookColumns {
  const scores = students.flat();
  const starts = new Int32Array(students.length + 1);
  for (const [at, own] of students.entries()) starts[at + 1] = starts[at]! + own.length;
  const inHundredths = (value: Decimal) => Number(unitsAt(value, 2));
  return {
    starts,
    assignment: Int32Array.from(scores, (_score, at) => at),
    points: Int32Array.from(scores, ({ points }) => (points ? inHundredths(points) : -1)),
    flag: Uint8Array.from(scores, ({ flag }) => (flag ? scoreFlags.indexOf(flag) + 1 : 0)),
    possible: Int32Array.from(scores, ({ possible }) => inHundredths(possible)),
    bits: Uint8Array.from(
      scores,
      ({ isExtra, isCounted }) => (isExtra ? isExtraBit : 0) | (isCounted ? 0 : isNotCountedBit),
    ),
    slot: Uint8Array.from(scores, ({ categoryId }) => (categoryId === null ? noSlot : slotOf(policy, categoryId))),
  };
}

function explainCategories(sums: StudentSums, columns: BookColumns, prepared: PreparedPolicy): CategoryWorkings[] {
  const { policy, weights, isTotal } = prepared;
  const found = policy.categories.map((_category, slot) => categoryPercent(sums, columns, 0, prepared, slot));
  const inPlay = found.reduce((sum, each, slot) => sum + (each ? weights[slot]! : 0), 0);
  const possible = isTotal ? sums.possible.reduce((sum, each) => sum + each, 0) : 0;
  return policy.categories.map(({ categoryId, weight }, slot): CategoryWorkings => {
    const own = found[slot];
    const parts = isTotal ? [sums.possible[slot]!, possible] : [weights[slot]!, inPlay];
    return {
      categoryId,
      weight,
      share:
        own && parts[1]! > 0 ? divide(rational(BigInt(parts[0]! * 100), 1n), rational(BigInt(parts[1]!), 1n)) : null,
      earned: hundredths(sums.earned[slot]!),
      possible: hundredths(sums.possible[slot]!),
      extra: hundredths(sums.extra[slot]!),
      counted: sums.count[slot]!,
      dropped: countDropped(sums, columns, slot),
      percent: own?.percent ?? null,
      limited: own?.limited ?? null,
      level: own?.level ?? null,
      standing:
        policy.levels && prepared.isOfEvidence ? standingOf(own?.level, sums.count[slot]!, policy.levels) : null,
    };
  });
}

function countDropped(sums: StudentSums, { slot: slots, assignment }: BookColumns, slot: number): number {
  return assignment.reduce((count, at, score) => count + (sums.dropped[score] && slots[at] === slot ? 1 : 0), 0);
}

function hundredths(units: number): Decimal {
  return { units: BigInt(units), digits: 2 };
}
