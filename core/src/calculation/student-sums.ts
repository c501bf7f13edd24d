import { bestDrop, compareRatios, type DropGroup } from './best-drop.js';
import { bestDropUnderLimits, limitUnits } from './best-drop-under-limits.js';
import type { BookColumns } from './book-columns.js';
import { noSlot, type PreparedPolicy } from './prepare-policy.js';
import { assignmentPlace, flagShift, noPointsBit, treatments, type Treatment } from './treat-score.js';

/** The position of a category takes one byte. */
const slotBits = 8;
/** What no assignment is out of. */
const noLevels = -1;
const number = Object.fromEntries(treatments.map((name, at) => [name, at])) as Record<Treatment, number>;
const { counted, countedAsZero, extra: extraOnly, blocks, noCategory } = number;

/** The scores of a category that drops some, by their positions in the columns. */
interface ScoreGroup extends DropGroup {
  readonly slot: number;
  readonly scores: readonly number[];
}

/**
 * What one student's scores add up to, by category. Made once for many books and filled again for each student, so that a
 * million take no memory; nothing of the student before is left. Whole numbers: hundredths of points.
 */
export class StudentSums {
  /** By score of the student. */
  treatment = new Uint8Array(64);
  dropped = new Uint8Array(64);
  /** By the position of the category; one more for what has none, which only total points count. */
  readonly earned = new Float64Array(noSlot + 1);
  readonly possible = new Float64Array(noSlot + 1);
  readonly extra = new Float64Array(noSlot + 1);
  readonly count = new Int32Array(noSlot + 1);
  isBlocked = false;
  private hasDropped = false;
  /** How many categories the student before may have left sums in. */
  private filled = 0;
  /** By assignment: its part of a score's place in a table of treatments, above the position of its category. */
  private readonly packed: Int32Array;
  /** By assignment: its category where points without a flag simply count, whatever the policy; else `noSlot`. */
  private readonly plain: Uint8Array;

  constructor(private readonly columns: BookColumns) {
    const { possible, bits, slot } = columns;
    this.packed = new Int32Array(possible.length);
    this.plain = new Uint8Array(possible.length);
    for (let at = 0; at < possible.length; at++) {
      this.packed[at] = (assignmentPlace(possible[at]!, bits[at]!, slot[at] !== noSlot) << slotBits) | slot[at]!;
      this.plain[at] = bits[at] === 0 && possible[at]! > 0 ? slot[at]! : noSlot;
    }
  }

  /** Adds up the scores of one student. */
  fill(student: number, prepared: PreparedPolicy): void {
    const { columns, packed } = this;
    const from = columns.starts[student]!;
    const to = columns.starts[student + 1]!;
    if (to - from > this.treatment.length) this.grow(to - from);
    this.clear(prepared.weights.length);
    const { treatments: table, canBlock } = prepared;
    const levels = prepared.isOfEvidence ? prepared.outOf : noLevels;
    const { assignment, points, flag, possible } = columns;
    const { treatment: treated, earned, possible: possibleSums, extra, count } = this;
    for (let score = from; score < to; score++) {
      const at = assignment[score]!;
      const pack = packed[at]!;
      const own = pack & noSlot;
      const worth = possible[at]!;
      const has = points[score]!;
      const place = (flag[score]! << flagShift) | (has < 0 ? noPointsBit : 0) | (pack >> slotBits);
      let treatment = table[worth === levels ? place - 1 : place]!;
      if (treatment === blocks && !canBlock[own]) treatment = noCategory;
      treated[score - from] = treatment;
      if (treatment === counted) {
        earned[own]! += has;
        possibleSums[own]! += worth;
        count[own]!++;
      } else if (treatment === countedAsZero) {
        possibleSums[own]! += worth;
        count[own]!++;
      } else if (treatment === extraOnly) extra[own]! += has;
      else if (treatment === blocks) this.isBlocked = true;
    }
    if (prepared.hasDrops) this.drop(from, to, prepared);
  }

  /** Adds up points alone, for a policy of sums: no counts, and no treatments but of what is not plain; in half the time. */
  addPoints(student: number, { weights, treatments: table, canBlock }: PreparedPolicy): void {
    this.clear(weights.length);
    const { packed, plain, earned, possible: possibleSums, extra } = this;
    const { starts, assignment, points, flag, possible } = this.columns;
    const to = starts[student + 1]!;
    for (let score = starts[student]!; score < to; score++) {
      const at = assignment[score]!;
      const simple = plain[at]!;
      const has = points[score]!;
      if (simple !== noSlot && has >= 0 && flag[score] === 0) {
        earned[simple]! += has;
        possibleSums[simple]! += possible[at]!;
        continue;
      }
      const pack = packed[at]!;
      const own = pack & noSlot;
      const treatment = table[(flag[score]! << flagShift) | (has < 0 ? noPointsBit : 0) | (pack >> slotBits)]!;
      if (treatment === counted) {
        earned[own]! += has;
        possibleSums[own]! += possible[at]!;
      } else if (treatment === countedAsZero) possibleSums[own]! += possible[at]!;
      else if (treatment === extraOnly) extra[own]! += has;
      else if (treatment === blocks && canBlock[own]) this.isBlocked = true;
    }
  }

  private clear(categories: number): void {
    const { earned, possible, extra, count } = this;
    const used = Math.max(categories, this.filled);
    for (let slot = 0; slot < used; slot++) earned[slot] = possible[slot] = extra[slot] = count[slot] = 0;
    this.filled = categories;
    earned[noSlot] = possible[noSlot] = extra[noSlot] = count[noSlot] = 0;
    this.isBlocked = false;
    if (this.hasDropped) this.dropped.fill(0);
    this.hasDropped = false;
  }

  private grow(size: number): void {
    this.treatment = new Uint8Array(size * 2);
    this.dropped = new Uint8Array(size * 2);
  }

  private drop(from: number, to: number, prepared: PreparedPolicy): void {
    const { drops, isTotal, isEqual } = prepared;
    const groups: ScoreGroup[] = [];
    for (let slot = 0; slot < drops.length; slot++) {
      const drop = drops[slot]!;
      if (drop === 0 || this.count[slot]! < 2) continue;
      if (drop === 1 && !isTotal && !isEqual) this.dropOne(from, to, slot);
      else groups.push({ slot, drop, ...this.scoresOf(from, to, slot) });
    }
    if (isEqual) for (const group of groups) dropLowestPercents(group);
    else if (isTotal) this.dropFromOnePot(groups, prepared.caps);
    else for (const group of groups) bestDrop([group], this.extra[group.slot]!, 0);
    for (const { slot, scores, dropped } of groups)
      for (const [at, score] of scores.entries()) if (dropped[at]) this.take(score, from, slot);
  }

  /** In one pot every choice depends on the others, and on the limits that hold the points of a category down. */
  private dropFromOnePot(groups: readonly ScoreGroup[], caps: Float64Array): void {
    const dropping = groups.map(({ slot }) => slot);
    const isLimited = Array.from(caps.keys()).some((slot) => this.mayReachLimit(slot, caps[slot]!, groups));
    if (!isLimited) return bestDrop(groups, ...this.beside(dropping));
    const own = groups.map((group) => ({ ...group, extra: this.extra[group.slot]!, limit: caps[group.slot]! }));
    let [earned, possible] = [0n, 0n];
    for (let slot = 0; slot <= noSlot; slot++) {
      if (dropping.includes(slot)) continue;
      earned += limitUnits(this.earned[slot]! + this.extra[slot]!, this.possible[slot]!, caps[slot] ?? Infinity);
      possible += BigInt(this.possible[slot]!);
    }
    bestDropUnderLimits(own, earned, possible);
  }

  /** Whether some choice of dropped scores brings a category above its limit. */
  private mayReachLimit(slot: number, cap: number, groups: readonly ScoreGroup[]): boolean {
    if (cap === Infinity) return false;
    const group = groups.find((each) => each.slot === slot);
    let [earned, possible] = [this.earned[slot]! + this.extra[slot]!, this.possible[slot]!];
    if (group) {
      bestDrop([group], this.extra[slot]!, 0);
      for (const [at, isDropped] of group.dropped.entries())
        if (isDropped) [earned, possible] = [earned - group.earned[at]!, possible - group.possible[at]!];
    }
    return compareRatios(earned, Math.max(possible, 1), cap, 10_000) > 0;
  }

  /** The one score of a category without which its points come to the most; of equals the first. No other method is as quick. */
  private dropOne(from: number, to: number, slot: number): void {
    const { assignment, points, possible, slot: slots } = this.columns;
    const earned = this.earned[slot]! + this.extra[slot]!;
    const outOf = this.possible[slot]!;
    let [best, bestEarned, bestPossible] = [-1, 0, 1];
    for (let score = from; score < to; score++) {
      const treatment = this.treatment[score - from]!;
      const at = assignment[score]!;
      if (slots[at] !== slot || treatment > countedAsZero) continue;
      const left = earned - (treatment === counted ? points[score]! : 0);
      const leftPossible = outOf - possible[at]!;
      if (best >= 0 && compareRatios(left, leftPossible, bestEarned, bestPossible) <= 0) continue;
      best = score;
      bestEarned = left;
      bestPossible = leftPossible;
    }
    this.take(best, from, slot);
  }

  /** Takes a score out of the sums. */
  private take(score: number, from: number, slot: number): void {
    const { assignment, points, possible } = this.columns;
    this.dropped[score - from] = 1;
    this.hasDropped = true;
    if (this.treatment[score - from] === counted) this.earned[slot]! -= points[score]!;
    this.possible[slot]! -= possible[assignment[score]!]!;
    this.count[slot]!--;
  }

  /** Points of the categories that drop nothing, and all extra points. */
  private beside(dropping: readonly number[]): [earned: number, possible: number] {
    let [earned, possible] = [0, 0];
    for (let slot = 0; slot <= noSlot; slot++) {
      earned += this.extra[slot]!;
      if (dropping.includes(slot)) continue;
      earned += this.earned[slot]!;
      possible += this.possible[slot]!;
    }
    return [earned, possible];
  }

  private scoresOf(from: number, to: number, slot: number) {
    const { columns } = this;
    const scores: number[] = [];
    for (let score = from; score < to; score++) {
      const treatment = this.treatment[score - from]!;
      if (columns.slot[columns.assignment[score]!] === slot && treatment <= countedAsZero) scores.push(score);
    }
    return {
      scores,
      count: scores.length,
      earned: scores.map((score) => (this.treatment[score - from] === counted ? columns.points[score]! : 0)),
      possible: scores.map((score) => columns.possible[columns.assignment[score]!]!),
      dropped: new Uint8Array(scores.length),
    };
  }
}

/** Where every assignment counts the same, the lowest percentages are the best choice. */
function dropLowestPercents({ earned, possible, count, drop, dropped }: DropGroup): void {
  const places = Array.from({ length: count }, (_each, at) => at).toSorted(
    (a, b) => compareRatios(earned[a]!, possible[a]!, earned[b]!, possible[b]!) || a - b,
  );
  for (const place of places.slice(0, Math.min(drop, count - 1))) dropped[place] = 1;
}
