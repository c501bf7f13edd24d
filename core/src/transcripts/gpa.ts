import type { CourseLevel } from '#core/courses';
import {
  add,
  compareDecimals,
  decimalOrThrow,
  divide,
  fromDecimal,
  multiply,
  roundHalfUp,
  roundTo,
  unitsAt,
  zero,
  type Credits,
  type Decimal,
  type GradePoints,
  type Rational,
  type Rounding,
} from '#core/numbers';
import { countRepeats, type CountedEntry, type RepeatRule } from './repeats.js';
import type { TranscriptEntry } from './transcript-entry.js';

/** How a grade point average is made. */
export interface GpaPolicy {
  /** Points added to a grade of a course of this level; 0 for an unweighted GPA. */
  readonly additions: Readonly<Record<CourseLevel, GradePoints>>;
  /** The fewest grade points that an addition is given for. */
  readonly leastAddedPoints: GradePoints;
  /** The most credits that additions are given for, over all entries together; null for no limit. */
  readonly mostAddedCredits: Credits | null;
  readonly repeats: RepeatRule;
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
  /** Entries left out of the sum: no grade points, a course that does not count, or an attempt that a repeat stands for. */
  readonly leftOut: readonly TranscriptEntry[];
}

/** Where a district has settled nothing: no additions, every attempt, three digits. */
export const plainGpaPolicy: GpaPolicy = {
  additions: { regular: decimalOrThrow('0'), honours: decimalOrThrow('0'), college: decimalOrThrow('0') },
  leastAddedPoints: decimalOrThrow('1.7'),
  mostAddedCredits: null,
  repeats: 'all',
  digits: 3,
  rounding: roundHalfUp,
};

/**
 * Grade points times credits, over credits, of the entries that count. The addition for a level is given from a least
 * number of grade points on: from 1.7 where it is given for A to C, a C with a minus included. Where its credits are
 * limited, the largest additions come first, which is the best for the student.
 * Source for the extra point on A, B and C in honours courses, without plus and minus: University of California, freshman
 * GPA requirement (from memory).
 * @param entries all lines that are to count together, oldest first
 */
export function gpa(entries: readonly TranscriptEntry[], policy: GpaPolicy): Gpa {
  // An attempt that carries no grade points stands for no other one.
  const graded = entries.filter(
    ({ countsInGpa, points, creditsTried }) => countsInGpa && points !== null && creditsTried.units > 0n,
  );
  const counted = countRepeats(graded, policy.repeats).filter(({ attempted }) => attempted.units > 0n);
  const isCounted = new Set(counted.map(({ entry }) => entry));
  const added = addedCredits(counted, policy);
  const lines = counted.map((each) => gpaLine(each, policy, added.get(each)!));
  const products = lines.map((line) => line.product).reduce(add, zero);
  const credits = lines.map((line) => fromDecimal(line.credits)).reduce(add, zero);
  return {
    value: lines.length === 0 ? null : roundTo(divide(products, credits), policy.digits, policy.rounding),
    lines,
    products,
    credits,
    leftOut: entries.filter((entry) => !isCounted.has(entry)),
  };
}

/** The credits of each entry that its addition is given for. */
function addedCredits(entries: readonly CountedEntry[], policy: GpaPolicy): ReadonlyMap<CountedEntry, Credits> {
  const most = policy.mostAddedCredits;
  if (most === null) return new Map(entries.map((each) => [each, each.attempted]));
  const given = new Map<CountedEntry, Credits>();
  let left: Credits = most;
  const largestFirst = entries.toSorted((a, b) => compareDecimals(additionOf(b, policy), additionOf(a, policy)));
  for (const each of largestFirst) {
    const own = compareDecimals(each.attempted, left) < 0 ? each.attempted : left;
    given.set(each, own);
    if (additionOf(each, policy).units > 0n) left = minus(left, own);
  }
  return given;
}

function additionOf({ entry }: CountedEntry, { additions, leastAddedPoints }: GpaPolicy): GradePoints {
  const { passes, points, level } = entry;
  const isGiven = passes && points !== null && compareDecimals(points, leastAddedPoints) >= 0;
  return isGiven ? additions[level] : { units: 0n, digits: 0 };
}

function minus(a: Credits, b: Credits): Credits {
  const digits = Math.max(a.digits, b.digits);
  return { units: unitsAt(a, digits) - unitsAt(b, digits), digits };
}

function gpaLine(counted: CountedEntry, policy: GpaPolicy, added: Credits): GpaLine {
  const { entry, attempted: credits } = counted;
  const points = entry.points!;
  const addition = additionOf(counted, policy);
  const product = add(
    multiply(fromDecimal(points), fromDecimal(credits)),
    multiply(fromDecimal(addition), fromDecimal(added)),
  );
  return { entry, points, addition, credits, addedCredits: added, product };
}
