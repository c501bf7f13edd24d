/** The scores of one category of which some may be dropped. Whole numbers, such as hundredths of points. */
export interface DropGroup {
  readonly earned: ArrayLike<number>;
  /** Each above 0. */
  readonly possible: ArrayLike<number>;
  /** How many of the first entries hold scores. */
  readonly count: number;
  /** How many to drop at most; the last score is never dropped. */
  readonly drop: number;
  /** Set to 1 where a score is dropped, else to 0, for the first `count`. */
  readonly dropped: Uint8Array;
}

/**
 * Marks the scores whose dropping leaves the greatest earned ÷ possible over all groups together. By points these are not
 * always the lowest percentages: a short quiz at 0 % may harm less than a long test at 50 %. Starting from the ratio of all,
 * the scores with the least earned − ratio × possible are dropped, and again from the ratio that is left, until it rises no
 * more; each step is exact, and the last one is best. Fewer are dropped only where a further one would lower the ratio, as can
 * be beside other categories in one pot.
 * Source: Kane & Kane, "Dropping Lowest Grades", Mathematics Magazine 79 (2006) (from memory); Dinkelbach's method.
 * @param fixedEarned earned beside the groups: extra points, and categories that drop nothing
 * @param fixedPossible what that is out of, 0 or more
 */
export function bestDrop(groups: readonly DropGroup[], fixedEarned: number, fixedPossible: number): void {
  let [sumEarned, sumPossible] = [fixedEarned, fixedPossible];
  for (const { earned, possible, count, dropped } of groups) {
    dropped.fill(0, 0, count);
    for (let at = 0; at < count; at++) {
      sumEarned += earned[at]!;
      sumPossible += possible[at]!;
    }
  }
  let mostDropped = -1;
  for (;;) {
    const choices = groups.map((group) => leastOf(group, sumEarned, sumPossible));
    let [nextEarned, nextPossible] = [fixedEarned, fixedPossible];
    for (const [at, group] of groups.entries()) {
      const kept = sumsWithout(group, choices[at]!);
      nextEarned += kept.earned;
      nextPossible += kept.possible;
    }
    const rise = compareRatios(nextEarned, nextPossible, sumEarned, sumPossible);
    const drops = choices.reduce((sum, { length }) => sum + length, 0);
    if (rise === 0 && drops <= mostDropped) return;
    mostDropped = drops;
    for (const [at, { dropped, count }] of groups.entries()) {
      dropped.fill(0, 0, count);
      for (const place of choices[at]!) dropped[place] = 1;
    }
    [sumEarned, sumPossible] = [nextEarned, nextPossible];
  }
}

/** Below 0 when a/b is less than c/d, for whole numbers from 0 and b, d above 0; exact also where products are large. */
export function compareRatios(a: number, b: number, c: number, d: number): number {
  const [left, right] = [a * d, c * b];
  if (left <= Number.MAX_SAFE_INTEGER && right <= Number.MAX_SAFE_INTEGER) return left - right;
  const difference = BigInt(a) * BigInt(d) - BigInt(c) * BigInt(b);
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}

/** The places of the least earned × sumPossible − sumEarned × possible: as many as may be dropped and do no harm so. */
function leastOf({ earned, possible, count, drop }: DropGroup, sumEarned: number, sumPossible: number): Int32Array {
  const drops = Math.max(0, Math.min(drop, count - 1));
  const [places, values] = [new Int32Array(drops), new Float64Array(drops).fill(Infinity)];
  let found = 0;
  if (drops === 0) return places;
  for (let at = 0; at < count; at++) {
    const value = earned[at]! * sumPossible - sumEarned * possible[at]!;
    if (value > 0 || value >= values[drops - 1]!) continue;
    let place = drops - 1;
    found = Math.min(found + 1, drops);
    while (place > 0 && values[place - 1]! > value) {
      values[place] = values[place - 1]!;
      places[place] = places[place - 1]!;
      place--;
    }
    values[place] = value;
    places[place] = at;
  }
  return places.subarray(0, found).toSorted();
}

function sumsWithout({ earned, possible, count }: DropGroup, places: Int32Array) {
  const sums = { earned: 0, possible: 0 };
  let skip = 0;
  for (let at = 0; at < count; at++) {
    if (places[skip] === at) skip++;
    else {
      sums.earned += earned[at]!;
      sums.possible += possible[at]!;
    }
  }
  return sums;
}
