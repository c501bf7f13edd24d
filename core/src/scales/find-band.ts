import { compareDecimals, fromDecimal, roundTo, type Percent, type Rounding } from '#core/numbers';
import { cutBands, type CutBand } from './band.js';

/** How exact a value is when it meets the cut-offs; a property of the report item. */
export interface Precision {
  /** Digits after the point, 0 to 2. */
  readonly digits: number;
  readonly rounding: Rounding;
}

export interface FoundBand<B extends { readonly lowest: Percent | null }> {
  /** The value as rounded, the one that was compared with the cut-offs. */
  readonly rounded: Percent;
  /** Undefined when the rounded value lies below every cut-off. */
  readonly band: CutBand<B> | undefined;
}

/**
 * The one rule of a scale: the value is rounded as the item says, then the band with the greatest lowest value not
 * above it is taken. The order of `bands` does not matter; bands without a cut-off and those switched off are passed over.
 */
export function findBand<B extends { readonly lowest: Percent | null; readonly isOff?: boolean }>(
  bands: readonly B[],
  value: Percent,
  precision: Precision,
): FoundBand<B> {
  const rounded = roundTo(fromDecimal(value), precision.digits, precision.rounding);
  let found: CutBand<B> | undefined;
  for (const band of cutBands(bands)) {
    const reaches = compareDecimals(band.lowest, rounded) <= 0;
    if (reaches && (!found || compareDecimals(band.lowest, found.lowest) > 0)) found = band;
  }
  return { rounded, band: found };
}
