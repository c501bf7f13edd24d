import type { DropGroup } from './best-drop.js';

/** The scores of a category in one pot, whose points count up to a limit. */
export interface LimitedGroup extends DropGroup {
  /** Earned out of nothing, in the units of the scores; what is dropped never takes it away. */
  readonly extra: number;
  /** The most the category may reach, in hundredths of a percent; Infinity for no limit. */
  readonly limit: number;
}

/** One choice of dropped scores: what the category then brings into the pot. */
interface Choice {
  /** Ten-thousandths of the units of the scores, after the limit. */
  readonly brings: bigint;
  readonly possible: bigint;
  readonly dropped: DroppedScore | null;
}

/** The scores dropped, from the last one back. */
interface DroppedScore {
  readonly place: number;
  readonly earned: number;
  readonly possible: number;
  readonly before: DroppedScore | null;
}

/** Points of a category after its limit, in ten-thousandths, so that a limit such as 95.25 % stays whole. */
export function limitUnits(earned: number, possible: number, limit: number): bigint {
  const own = BigInt(earned) * 10_000n;
  if (limit === Infinity) return own;
  const most = BigInt(limit) * BigInt(possible);
  return own < most ? own : most;
}

/**
 * Marks the scores whose dropping leaves the greatest earned ÷ possible over all groups together, where the points of a
 * category count up to its limit. A limit makes the best choice of a category depend on how much it drops altogether, not
 * on each score by itself; so for every total of points possible that can be dropped the choice is kept that gives up the
 * least, and of these the best ones together are found by Dinkelbach's method. Exact; the work grows with the number of
 * different totals.
 * @param fixedEarned ten-thousandths, earned beside the groups, limits applied
 */
export function bestDropUnderLimits(groups: readonly LimitedGroup[], fixedEarned: bigint, fixedPossible: bigint): void {
  const choices = groups.map(choicesOf);
  let chosen = choices.map(([nothingDropped]) => nothingDropped!);
  for (;;) {
    const brings = chosen.reduce((sum, each) => sum + each.brings, fixedEarned);
    const possible = chosen.reduce((sum, each) => sum + each.possible, fixedPossible);
    const above = (choice: Choice) => choice.brings * possible - brings * choice.possible;
    const next = choices.map((own) => own.reduce((best, choice) => (above(choice) > above(best) ? choice : best)));
    if (next.every((choice, at) => above(choice) === above(chosen[at]!))) break;
    chosen = next;
  }
  for (const [at, { dropped, count }] of groups.entries()) {
    dropped.fill(0, 0, count);
    for (let each = chosen[at]!.dropped; each; each = each.before) dropped[each.place] = 1;
  }
}

/** For each total of points possible dropped the choice that gives up the least; first the one that drops nothing. */
function choicesOf({ earned, possible, count, drop, extra, limit }: LimitedGroup): Choice[] {
  const most = Math.max(0, Math.min(drop, count - 1));
  const byCount: Map<number, DroppedScore | null>[] = [
    new Map([[0, null]]),
    ...Array.from({ length: most }, () => new Map()),
  ];
  for (let place = 0; place < count; place++)
    for (let dropped = most; dropped > 0; dropped--)
      for (const before of byCount[dropped - 1]!.values()) {
        const sum = (before?.possible ?? 0) + possible[place]!;
        const given = (before?.earned ?? 0) + earned[place]!;
        const known = byCount[dropped]!.get(sum);
        if (!known || given < known.earned) byCount[dropped]!.set(sum, { place, earned: given, possible: sum, before });
      }
  const all = Array.from({ length: count }, (_each, place) => place);
  const wholeEarned = all.reduce((sum, place) => sum + earned[place]!, extra);
  const wholePossible = all.reduce((sum, place) => sum + possible[place]!, 0);
  return byCount.flatMap((same) =>
    [...same.values()].map((dropped): Choice => {
      const kept = wholePossible - (dropped?.possible ?? 0);
      return {
        brings: limitUnits(wholeEarned - (dropped?.earned ?? 0), kept, limit),
        possible: BigInt(kept),
        dropped,
      };
    }),
  );
}
