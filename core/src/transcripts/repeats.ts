import {
  add,
  compareRationals,
  divide,
  fromDecimal,
  multiply,
  unitsAt,
  zero,
  type Credits,
  type Rational,
} from '#core/numbers';
import type { TranscriptEntry } from './transcript-entry.js';

/** Which attempts count where a student took a course more than once: all, the best or the newest ones. */
export const repeatRules = ['all', 'highest', 'latest'] as const;
export type RepeatRule = (typeof repeatRules)[number];

/** A line as it counts once repeats are looked at. */
export interface CountedEntry {
  readonly entry: TranscriptEntry;
  /** Of the credits attempted those that count in a GPA. */
  readonly attempted: Credits;
  /** Of the credits earned those that count. */
  readonly earned: Credits;
}

const digits = 4;

/**
 * What each line of a student counts for. A course that states the most credits it gives when repeated earns no more than
 * those over all attempts; where the best or the newest attempts count, only so many of their credits are in the GPA, and
 * the other attempts are in none. Where a course states no limit every attempt counts. Lines come back in their order.
 * @param entries all lines of one student, oldest first
 * @example a course of 1 credit, at most 1, taken twice with 1.0 and 3.0: `highest` counts the 3.0 and 1 credit
 */
export function countRepeats(entries: readonly TranscriptEntry[], rule: RepeatRule): CountedEntry[] {
  const counted = new Map<TranscriptEntry, CountedEntry>();
  for (const own of groupsOf(entries, ({ courseCode }) => courseCode)) {
    const most = own.at(-1)!.mostCredits;
    const inOrder = attemptsInOrder(own, rule).flat();
    const earned = limited(inOrder, most, ({ creditsEarned }) => creditsEarned);
    const attempted = limited(inOrder, rule === 'all' ? null : most, ({ creditsTried }) => creditsTried);
    inOrder.forEach((entry, at) => counted.set(entry, { entry, attempted: attempted[at]!, earned: earned[at]! }));
  }
  return entries.map((entry) => counted.get(entry)!);
}

/** Entries that have something in common, in the order in which each group begins. */
function groupsOf(
  entries: readonly TranscriptEntry[],
  keyOf: (entry: TranscriptEntry) => unknown,
): TranscriptEntry[][] {
  const groups = new Map<unknown, TranscriptEntry[]>();
  for (const entry of entries) groups.set(keyOf(entry), [...(groups.get(keyOf(entry)) ?? []), entry]);
  return [...groups.values()];
}

/** The attempts at one course, the one that counts first at the front. */
function attemptsInOrder(entries: readonly TranscriptEntry[], rule: RepeatRule): TranscriptEntry[][] {
  const attempts = groupsOf(entries, ({ attempt }) => attempt);
  if (rule === 'all') return attempts;
  const newestFirst = attempts.toReversed();
  return rule === 'latest'
    ? newestFirst
    : newestFirst.toSorted((a, b) => compareRationals(averagePoints(b), averagePoints(a)));
}

/** Below every grade where an attempt carries no grade points. */
function averagePoints(entries: readonly TranscriptEntry[]): Rational {
  const graded = entries.filter(({ points, creditsTried }) => points !== null && creditsTried.units > 0n);
  if (graded.length === 0) return { numerator: -1n, denominator: 1n };
  const credits = graded.map(({ creditsTried }) => fromDecimal(creditsTried)).reduce(add, zero);
  const products = graded.map(({ points, creditsTried }) => multiply(fromDecimal(points!), fromDecimal(creditsTried)));
  return divide(products.reduce(add, zero), credits);
}

function limited(
  entries: readonly TranscriptEntry[],
  most: Credits | null,
  creditsOf: (entry: TranscriptEntry) => Credits,
): Credits[] {
  if (most === null) return entries.map(creditsOf);
  let left = unitsAt(most, digits);
  return entries.map((entry) => {
    const own = unitsAt(creditsOf(entry), digits);
    const units = own < left ? own : left;
    left -= units;
    return units === own ? creditsOf(entry) : { units, digits };
  });
}
