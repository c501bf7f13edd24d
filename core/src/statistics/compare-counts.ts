import { chiSquareTail } from './chi-square-tail.js';

/** Below this a cell's expected count says too little: neighbours are put together until each has as many. */
const leastExpected = 5;

export interface CountComparison {
  readonly chiSquare: number;
  readonly freedom: number;
  /** The chance of lying at least as far apart by chance alone. */
  readonly chance: number;
  /** Cramér's V: 0 where both lie alike, 1 where they have nothing in common. */
  readonly effect: number;
}

/**
 * Pearson's chi-square of two rows of counts over the same ordered kinds, such as the labels of a section and those of its
 * sister sections. Undefined where too few are there to tell.
 */
export function compareCounts(own: readonly number[], others: readonly number[]): CountComparison | undefined {
  const [ownTotal, otherTotal] = [sumOf(own), sumOf(others)];
  const total = ownTotal + otherTotal;
  const smaller = Math.min(ownTotal, otherTotal);
  if (smaller === 0) return undefined;
  const isEnough = ([first, second]: Cell) => ((first + second) * smaller) / total >= leastExpected;
  const cells: Cell[] = [];
  let open: Cell = [0, 0];
  for (const [at, count] of own.entries()) {
    open = [open[0] + count, open[1] + others[at]!];
    if (!isEnough(open)) continue;
    cells.push(open);
    open = [0, 0];
  }
  const last = cells.pop();
  if (last) cells.push([last[0] + open[0], last[1] + open[1]]);
  if (cells.length < 2) return undefined;
  let chiSquare = 0;
  for (const [first, second] of cells) {
    for (const [found, share] of [
      [first, ownTotal],
      [second, otherTotal],
    ] as const) {
      const expected = ((first + second) * share) / total;
      chiSquare += (found - expected) ** 2 / expected;
    }
  }
  const freedom = cells.length - 1;
  return { chiSquare, freedom, chance: chiSquareTail(chiSquare, freedom), effect: Math.sqrt(chiSquare / total) };
}

/** A kind's count in the one row and in the other. */
type Cell = readonly [number, number];

const sumOf = (counts: readonly number[]) => counts.reduce((sum, count) => sum + count, 0);
