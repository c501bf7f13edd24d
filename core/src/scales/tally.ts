import { compareDecimals, decimalOrThrow, unitsAt, type Decimal, type Percent } from '#core/numbers';
import { findBand, type Precision } from './find-band.js';
import { cutBands, type Band } from './band.js';

/** How often a percent occurs. */
export interface PercentTally {
  readonly percent: Percent;
  readonly grades: number;
}

/** How many grades lie at each step of a scale, from 0 to its top. */
export interface Histogram {
  /** From one bar to the next: a percent, or a tenth of a level. */
  readonly step: number;
  readonly counts: readonly number[];
}

/** Grades by whole percent, or by tenth of a level; what lies above the top is in the last place, below 0 in the first. */
export function histogramOf(tallies: readonly PercentTally[], top: Decimal): Histogram {
  const digits = compareDecimals(top, ten) > 0 ? 0 : 1;
  const last = Number(floorAt(top, digits));
  const counts = new Array<number>(last + 1).fill(0);
  for (const { percent, grades } of tallies) {
    counts[Math.min(last, Math.max(0, Number(floorAt(percent, digits))))]! += grades;
  }
  return { step: 10 ** -digits, counts };
}

const ten = decimalOrThrow('10');

function floorAt(value: Decimal, digits: number): bigint {
  const fine = Math.max(value.digits, digits);
  return unitsAt(value, fine) / 10n ** BigInt(fine - digits);
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

/** What counts as just below a cut-off: half a percent, or as large a part of the highest level. */
export function justBelowOf(top: Decimal): Decimal {
  return { units: top.units * 5n, digits: top.digits + 3 };
}

/** Grades that lie less than that below a cut-off, where a change of the scale is felt first. */
export function countJustBelow(bands: readonly Band[], tallies: readonly PercentTally[], top: Decimal): number {
  const half = justBelowOf(top);
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
