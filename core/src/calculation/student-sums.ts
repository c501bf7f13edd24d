import { bestDrop, compareRatios, type DropGroup } from './best-drop.js';
import type { BookColumns } from './book-columns.js';
import { noSlot, type PreparedPolicy } from './prepare-policy.js';
import { treatments, treatScore, type Treatment } from './treat-score.js';

const number = Object.fromEntries(treatments.map((name, at) => [name, at])) as Record<Treatment, number>;
const { counted, countedAsZero, extra: extraOnly, blocks, noCategory } = number;

/**
 * What one student's scores add up to, by category. Made once and filled again for each student, so that a million take no
 * memory. Whole numbers: hundredths of points.
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

  /** Adds up the scores of one student. */
  fill(columns: BookColumns, student: number, prepared: PreparedPolicy): void {
    const [from, to] = [columns.starts[student]!, columns.starts[student + 1]!];
    if (to - from > this.treatment.length) this.grow(to - from);
    this.clear(prepared.weights.length);
    const { effects, outOf, isTotal } = prepared;
    const { assignment, points, flag, possible, bits, slot } = columns;
    for (let score = from; score < to; score++) {
      const at = assignment[score]!;
      let treatment = treatScore(points[score]!, flag[score]!, possible[at]!, bits[at]!, effects, outOf);
      const own = slot[at]!;
      if (own === noSlot && !isTotal && treatment <= extraOnly) treatment = noCategory;
      this.treatment[score - from] = treatment;
      if (treatment === counted || treatment === countedAsZero) {
        if (treatment === counted) this.earned[own]! += points[score]!;
        this.possible[own]! += possible[at]!;
        this.count[own]!++;
      } else if (treatment === extraOnly) this.extra[own]! += points[score]!;
      else if (treatment === blocks) this.isBlocked = true;
    }
    if (prepared.hasDrops) this.drop(columns, from, to, prepared);
  }

  private clear(categories: number): void {
    for (const sums of [this.earned, this.possible, this.extra, this.count]) {
      sums.fill(0, 0, categories);
      sums[noSlot] = 0;
    }
    this.isBlocked = false;
    this.dropped.fill(0);
  }

  private grow(size: number): void {
    this.treatment = new Uint8Array(size * 2);
    this.dropped = new Uint8Array(size * 2);
  }

  private drop(columns: BookColumns, from: number, to: number, { drops, isTotal, isEqual }: PreparedPolicy): void {
    const groups: (DropGroup & { readonly slot: number; readonly scores: readonly number[] })[] = [];
    for (const [slot, drop] of drops.entries()) {
      if (drop > 0 && this.count[slot]! > 1) groups.push({ slot, drop, ...this.scoresOf(columns, from, to, slot) });
    }
    if (isEqual) for (const group of groups) dropLowestPercents(group);
    else if (isTotal) bestDrop(groups, ...this.beside(groups.map(({ slot }) => slot)));
    else for (const group of groups) bestDrop([group], this.extra[group.slot]!, 0);
    for (const { slot, scores, dropped, earned, possible } of groups) {
      for (const [at, score] of scores.entries()) {
        if (!dropped[at]) continue;
        this.dropped[score - from] = 1;
        this.earned[slot]! -= earned[at]!;
        this.possible[slot]! -= possible[at]!;
        this.count[slot]!--;
      }
    }
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

  private scoresOf(columns: BookColumns, from: number, to: number, slot: number) {
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
