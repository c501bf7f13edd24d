import { add, divide, multiply, rational, unitsAt, zero, type Rational } from '#core/numbers';
import type { BookColumns } from './book-columns.js';
import { levelOfEvidence } from './evidence.js';
import { noSlot, type PreparedPolicy } from './prepare-policy.js';
import type { StudentSums } from './student-sums.js';
import { treatments } from './treat-score.js';

const hundred = rational(100n, 1n);
const countedAsZero = treatments.indexOf('countedAsZero');

/** What a category comes to, before and after its limit, in percent; undefined where it has nothing to go by. */
export interface CategoryPercent {
  readonly percent: Rational;
  readonly limited: Rational;
  /** The level behind the percent, for the methods of evidence. */
  readonly level: Rational | null;
}

/** The exact percent of one category of a student. */
export function categoryPercent(
  sums: StudentSums,
  columns: BookColumns,
  student: number,
  prepared: PreparedPolicy,
  slot: number,
): CategoryPercent | undefined {
  const count = sums.count[slot]!;
  if (count === 0) return undefined;
  const { policy, caps, outOf } = prepared;
  if (prepared.isOfEvidence) {
    if (count < policy.levels!.evidence) return undefined;
    const levels = pointsOf(sums, columns, student, slot).map(({ points }) => points);
    const level = levelOfEvidence(policy.method, levels, Number(unitsAt(policy.newestShare, 2)), outOf)!;
    return limit(multiply(level, rational(10_000n, BigInt(outOf))), caps[slot]!, level);
  }
  if (prepared.isEqual) {
    const shares = pointsOf(sums, columns, student, slot).map(({ points, possible }) =>
      rational(BigInt(points), BigInt(possible)),
    );
    // hundredths of a point, each point worth a hundredth of one assignment
    const extra = rational(BigInt(sums.extra[slot]!), 10_000n);
    return limit(multiply(divide(add(shares.reduce(add, zero), extra), whole(count)), hundred), caps[slot]!, null);
  }
  const earned = BigInt(sums.earned[slot]! + sums.extra[slot]!);
  return limit(rational(earned * 100n, BigInt(sums.possible[slot]!)), caps[slot]!, null);
}

/** The exact percent of a student over all categories, the limit on the whole applied; undefined without evidence. */
export function exactPercent(
  sums: StudentSums,
  columns: BookColumns,
  student: number,
  prepared: PreparedPolicy,
): Rational | undefined {
  const found = prepared.isTotal ? totalPercent(sums, prepared) : weightedPercent(sums, columns, student, prepared);
  return found && least(found, prepared.cap);
}

/** All points over all points possible; a limit on a category limits its points. */
function totalPercent(sums: StudentSums, { weights, caps }: PreparedPolicy): Rational | undefined {
  let possible = sums.possible[noSlot]!;
  let earned = whole(sums.earned[noSlot]! + sums.extra[noSlot]!);
  for (let slot = 0; slot < weights.length; slot++) {
    possible += sums.possible[slot]!;
    const own = whole(sums.earned[slot]! + sums.extra[slot]!);
    const cap = caps[slot]!;
    const most = cap === Infinity ? own : rational(BigInt(cap * sums.possible[slot]!), 10_000n);
    earned = add(earned, isLess(most, own) ? most : own);
  }
  return possible === 0 ? undefined : multiply(divide(earned, whole(possible)), hundred);
}

function weightedPercent(
  sums: StudentSums,
  columns: BookColumns,
  student: number,
  prepared: PreparedPolicy,
): Rational | undefined {
  let [sum, weights] = [zero, 0];
  for (const [slot, weight] of prepared.weights.entries()) {
    const found = weight > 0 ? categoryPercent(sums, columns, student, prepared, slot) : undefined;
    if (!found) continue;
    sum = add(sum, multiply(found.limited, whole(weight)));
    weights += weight;
  }
  return weights === 0 ? undefined : divide(sum, whole(weights));
}

/** The counted scores of a category that were not dropped. */
function pointsOf(sums: StudentSums, columns: BookColumns, student: number, slot: number) {
  const from = columns.starts[student]!;
  const found: { readonly points: number; readonly possible: number }[] = [];
  for (let score = from; score < columns.starts[student + 1]!; score++) {
    const [treatment, at] = [sums.treatment[score - from]!, columns.assignment[score]!];
    if (treatment > countedAsZero || sums.dropped[score - from] || columns.slot[at] !== slot) continue;
    found.push({
      points: treatment === countedAsZero ? 0 : columns.points[score]!,
      possible: columns.possible[at]!,
    });
  }
  return found;
}

function limit(percent: Rational, cap: number, level: Rational | null): CategoryPercent {
  return { percent, limited: least(percent, cap), level };
}

/** @param cap hundredths of a percent, Infinity for none */
function least(percent: Rational, cap: number): Rational {
  if (cap === Infinity) return percent;
  const most = rational(BigInt(cap), 100n);
  return isLess(most, percent) ? most : percent;
}

function isLess(a: Rational, b: Rational): boolean {
  return a.numerator * b.denominator < b.numerator * a.denominator;
}

function whole(value: number): Rational {
  return rational(BigInt(value), 1n);
}
