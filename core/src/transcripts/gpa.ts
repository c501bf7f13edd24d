import type { CourseLevel } from '#core/courses';
import {
  add,
  compareDecimals,
  divide,
  fromDecimal,
  multiply,
  roundTo,
  unitsAt,
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
  /** The most credits that additions are given for, over all entries together; null for no limit. */
  readonly mostAddedCredits: Credits | null;
  readonly digits: number;
  readonly rounding: Rounding;
}

/** One line of the sum. */
export interface GpaLine {
  readonly entry: TranscriptEntry;
  readonly points: GradePoints;
  readonly addition: GradePoints;
  readonly credits: Credits;
  /** The credits that the addition is given for: all of them, or what the limit leaves. */
  readonly addedCredits: Credits;
  /** Points × credits and the addition × its credits, exact. */
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
 * grades only; where its credits are limited, the largest additions come first, which is the best for the student.
 * Source for the extra point on passing honours grades: University of California, freshman GPA requirement (from memory).
 */
export function gpa(entries: readonly TranscriptEntry[], policy: GpaPolicy): Gpa {
  const counts = (entry: TranscriptEntry) =>
    entry.countsInGpa && entry.points !== null && entry.creditsTried.units > 0n;
  const counted = entries.filter(counts);
  const added = addedCredits(counted, policy);
  const lines = counted.map((entry) => gpaLine(entry, policy, added.get(entry)!));
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

/** The credits of each entry that its addition is given for. */
function addedCredits(entries: readonly TranscriptEntry[], policy: GpaPolicy): ReadonlyMap<TranscriptEntry, Credits> {
  const most = policy.mostAddedCredits;
  if (most === null) return new Map(entries.map((entry) => [entry, entry.creditsTried]));
  const given = new Map<TranscriptEntry, Credits>();
  let left: Credits = most;
  const largestFirst = entries.toSorted((a, b) => compareDecimals(additionOf(b, policy), additionOf(a, policy)));
  for (const entry of largestFirst) {
    const own = compareDecimals(entry.creditsTried, left) < 0 ? entry.creditsTried : left;
    given.set(entry, own);
    if (additionOf(entry, policy).units > 0n) left = minus(left, own);
  }
  return given;
}

function additionOf({ passes, level }: TranscriptEntry, { additions }: GpaPolicy): GradePoints {
  return passes ? additions[level] : { units: 0n, digits: 0 };
}

function minus(a: Credits, b: Credits): Credits {
  const digits = Math.max(a.digits, b.digits);
  return { units: unitsAt(a, digits) - unitsAt(b, digits), digits };
}

function gpaLine(entry: TranscriptEntry, policy: GpaPolicy, added: Credits): GpaLine {
  const points = entry.points!;
  const addition = additionOf(entry, policy);
  const product = add(
    multiply(fromDecimal(points), fromDecimal(entry.creditsTried)),
    multiply(fromDecimal(addition), fromDecimal(added)),
  );
  return { entry, points, addition, credits: entry.creditsTried, addedCredits: added, product };
}
