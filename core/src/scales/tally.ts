import { compareDecimals, decimalOrThrow, unitsAt, type Percent } from '#core/numbers';
import { findBand, type Precision } from './find-band.js';
import { cutBands, type Band } from './band.js';

/** How often a percent occurs. */
export interface PercentTally {
  readonly percent: Percent;
  readonly grades: number;
}

/**
 * Grades by whole percent, 0 to 99, and 100 and above in the last of the 101 places; a percent below 0 counts at 0.
 */
export function countByWholePercent(tallies: readonly PercentTally[]): number[] {
  const counts = new Array<number>(101).fill(0);
  for (const { percent, grades } of tallies) {
    const whole = Number(unitsAt(percent, percent.digits) / 10n ** BigInt(percent.digits));
    counts[Math.min(100, Math.max(0, whole))]! += grades;
  }
  return counts;
}

/** Grades in each band, by position in `bands`. */
export function countByBand(bands: readonly Band[], tallies: readonly PercentTally[], precision: Precision): number[] {
  const counts = new Array<number>(bands.length).fill(0);
  for (const { percent, grades } of tallies) {
    const { band } = findBand<Band>(bands, percent, precision);
    if (band) counts[bands.indexOf(band)]! += grades;
  }
  return counts;
}

export interface DraftEffect {
  /** Grades whose label would be one with a higher cut-off than now. */
  readonly up: number;
  readonly down: number;
}

/** What a draft of the cut-offs would do to grades that exist: how many labels move, and which way. */
export function draftEffect(
  saved: readonly Band[],
  draft: readonly Band[],
  tallies: readonly PercentTally[],
  precision: Precision,
): DraftEffect {
  let [up, down] = [0, 0];
  for (const { percent, grades } of tallies) {
    const [before, after] = [saved, draft].map((bands) => findBand<Band>(bands, percent, precision).band);
    if (before?.label === after?.label) continue;
    if (rank(saved, after) > rank(saved, before)) up += grades;
    else down += grades;
  }
  return { up, down };
}

/** Grades that lie less than half a point below a cut-off, where a change of the scale is felt first. */
export function countJustBelow(bands: readonly Band[], tallies: readonly PercentTally[]): number {
  const half = decimalOrThrow('0.5');
  const isJustBelow = (percent: Percent, lowest: Percent) => {
    const digits = Math.max(percent.digits, lowest.digits, half.digits);
    const distance = unitsAt(lowest, digits) - unitsAt(percent, digits);
    return distance > 0n && distance < unitsAt(half, digits);
  };
  return tallies
    .filter(({ percent }) =>
      cutBands(bands).some((band) => compareDecimals(band.lowest, percent) > 0 && isJustBelow(percent, band.lowest)),
    )
    .reduce((sum, { grades }) => sum + grades, 0);
}

function rank(bands: readonly Band[], band: Band | undefined): number {
  const lowest = bands.find((each) => each.label === band?.label)?.lowest ?? band?.lowest;
  return lowest ? Number(unitsAt(lowest, Math.max(4, lowest.digits))) : -1;
}
