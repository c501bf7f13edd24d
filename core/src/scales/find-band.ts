import { compareDecimals, fromDecimal, roundTo, type Decimal, type Percent, type Rounding } from '#core/numbers';

/** How exact a value is when it meets the cut-offs; a property of the report item. */
export interface Precision {
  /** Digits after the point, 0 to 2. */
  readonly digits: number;
  readonly rounding: Rounding;
}

export interface FoundBand<B> {
  /** The value as rounded, the one that was compared with the cut-offs. */
  readonly rounded: Percent;
  /** Undefined when the rounded value lies below every cut-off. */
  readonly band: B | undefined;
}

/**
 * The one rule of a scale: the value is rounded as the item says, then the band with the greatest lowest value not
 * above it is taken. The order of `bands` does not matter.
 */
export function findBand<B extends { readonly lowest: Decimal }>(
  bands: readonly B[],
  value: Percent,
  precision: Precision,
): FoundBand<B> {
  const rounded = roundTo(fromDecimal(value), precision.digits, precision.rounding);
  let found: B | undefined;
  for (const band of bands) {
    const reaches = compareDecimals(band.lowest, rounded) <= 0;
    if (reaches && (!found || compareDecimals(band.lowest, found.lowest) > 0)) found = band;
  }
  return { rounded, band: found };
}
