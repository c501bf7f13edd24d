import { compareDecimals, type Decimal } from '#core/numbers';
import type { Band } from './band.js';

/**
 * The band of a mean of grade points: the one with the most grade points not above it. Undefined below every band that
 * carries any.
 * @example bandOfPoints(letters, decimalOrThrow('3.5')) // B+ with 3.3
 */
export function bandOfPoints(bands: readonly Band[], points: Decimal): Band | undefined {
  return bands
    .filter((band) => !band.isOff && band.points !== null && compareDecimals(band.points, points) <= 0)
    .toSorted((a, b) => compareDecimals(b.points!, a.points!))[0];
}
