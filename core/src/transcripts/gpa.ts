import type { CourseLevel } from '#core/courses';
import {
  add,
  divide,
  fromDecimal,
  multiply,
  roundTo,
  zero,
  type Credits,
  type Decimal,
  type GradePoints,
  type Rational,
  type Rounding,
} from '#core/numbers';
import type { TranscriptEntry } from './transcript-entry.js';

/** How a grade point average is made. */
export interface GpaPolicy {
  /** Points added to a passing grade of a course of this level; 0 for an unweighted GPA. */
  readonly additions: Readonly<Record<CourseLevel, GradePoints>>;
  readonly digits: number;
  readonly rounding: Rounding;
}

/** One line of the sum. */
export interface GpaLine {
  readonly entry: TranscriptEntry;
  readonly points: GradePoints;
  readonly addition: GradePoints;
  readonly credits: Credits;
  /** (points + addition) × credits, exact. */
  readonly product: Rational;
}

export interface Gpa {
  /** Null when no entry counts. */
  readonly value: Decimal | null;
  readonly lines: readonly GpaLine[];
  readonly products: Rational;
  readonly credits: Rational;
  /** Entries left out of the sum: no grade points, or a course that does not count. */
  readonly leftOut: readonly TranscriptEntry[];
}

/**
 * Grade points times credits, over credits, of the entries that count. The addition for a level is given to passing
 * grades only.
 * Source for the extra point on passing honours grades: University of California, freshman GPA requirement (from memory).
 */
export function gpa(entries: readonly TranscriptEntry[], policy: GpaPolicy): Gpa {
  const counts = (entry: TranscriptEntry) =>
    entry.countsInGpa && entry.points !== null && entry.creditsTried.units > 0n;
  const lines = entries.filter(counts).map((entry) => gpaLine(entry, policy));
  const products = lines.map((line) => line.product).reduce(add, zero);
  const credits = lines.map((line) => fromDecimal(line.credits)).reduce(add, zero);
  return {
    value: lines.length === 0 ? null : roundTo(divide(products, credits), policy.digits, policy.rounding),
    lines,
    products,
    credits,
    leftOut: entries.filter((entry) => !counts(entry)),
  };
}

function gpaLine(entry: TranscriptEntry, { additions }: GpaPolicy): GpaLine {
  const points = entry.points!;
  const addition = entry.passes ? additions[entry.level] : { units: 0n, digits: 0 };
  const product = multiply(add(fromDecimal(points), fromDecimal(addition)), fromDecimal(entry.creditsTried));
  return { entry, points, addition, credits: entry.creditsTried, product };
}
