import { fromDecimal, multiply, rational, unitsAt, type Decimal, type Percent, type Rational } from '#core/numbers';
import type { Precision } from './find-band.js';
import { cutBands, type CutBand } from './band.js';
import { orderBands } from './order-bands.js';

export interface BandEdge<B extends { readonly lowest: Percent | null }> {
  readonly band: CutBand<B>;
  /** The band below, undefined under the lowest cut-off. */
  readonly below: CutBand<B> | undefined;
  /** The first value, at `valueDigits` digits, that reaches the band once rounded. */
  readonly firstValue: Percent;
  /** The last value, one step of 10^-`valueDigits` lower, that still falls below it. */
  readonly lastBelow: Percent;
}

/**
 * The two values on either side of each cut-off, highest first: with one decimal half up and a cut-off of 89.5, 89.45
 * is the first value in and 89.44 the last one out.
 */
export function bandEdges<B extends { readonly lowest: Percent | null; readonly isOff?: boolean }>(
  bands: readonly B[],
  precision: Precision,
  valueDigits: number,
): BandEdge<B>[] {
  const ordered = orderBands(cutBands(bands));
  return ordered.map((band, index) => {
    const first = firstUnitsReaching(band.lowest, precision, valueDigits);
    return {
      band,
      below: ordered[index + 1],
      firstValue: { units: first, digits: valueDigits },
      lastBelow: { units: first - 1n, digits: valueDigits },
    };
  });
}

/** Rounding moves a value by less than one step of the precision, so the edge lies within one step of the cut-off. */
function firstUnitsReaching(lowest: Decimal, { digits, rounding }: Precision, valueDigits: number): bigint {
  const target = unitsAt(lowest, Math.max(lowest.digits, digits));
  const targetScale = 10n ** BigInt(Math.max(lowest.digits, digits) - digits);
  const reaches = (units: bigint) => rounding(scaled(units, valueDigits, digits)) * targetScale >= target;
  const step = 10n ** BigInt(Math.max(0, valueDigits - digits));
  const at = fromDecimal(lowest);
  let low = (at.numerator * 10n ** BigInt(valueDigits)) / at.denominator - step - 1n;
  let high = low + 2n * step + 2n;
  while (high - low > 1n) {
    const middle = (low + high) / 2n;
    if (reaches(middle)) high = middle;
    else low = middle;
  }
  return high;
}

function scaled(units: bigint, valueDigits: number, digits: number): Rational {
  return multiply(rational(units, 10n ** BigInt(valueDigits)), rational(10n ** BigInt(digits), 1n));
}
