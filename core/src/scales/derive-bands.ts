import { decimalOrThrow, unitsAt, type Decimal, type GradePoints, type Percent } from '#core/numbers';
import { cutBands, type Band } from './band.js';
import { orderBands } from './order-bands.js';

/** How far a scale that is tied to another lies from it; either may be negative. */
export interface Shift {
  readonly cutOffs: Decimal;
  readonly points: Decimal;
}

const hundred: Percent = decimalOrThrow('100');
const nought: Decimal = decimalOrThrow('0');

/**
 * The bands of a scale tied to another: every cut-off but the lowest shifted and kept within 0 to 100, grade points of
 * passing bands shifted and kept from falling below 0. Labels, descriptors and the rest follow the other scale.
 * @example deriveBands(letters, { cutOffs: decimalOrThrow('-0.5'), points: decimalOrThrow('0.5') }) // A from 92.5, 4.5
 */
export function deriveBands(base: readonly Band[], shift: Shift): Band[] {
  const bottom = orderBands(cutBands(base)).at(-1);
  return base.map((band) => ({
    ...band,
    lowest: band.lowest === null || band === bottom ? band.lowest : within(plus(band.lowest, shift.cutOffs)),
    points: band.points === null || !band.passes ? band.points : notBelow0(plus(band.points, shift.points)),
  }));
}

function plus(a: Decimal, b: Decimal): Decimal {
  const digits = Math.max(a.digits, b.digits);
  return { units: unitsAt(a, digits) + unitsAt(b, digits), digits };
}

function within(value: Percent): Percent {
  if (value.units < 0n) return nought;
  return value.units > unitsAt(hundred, value.digits) ? hundred : value;
}

function notBelow0(points: GradePoints): GradePoints {
  return points.units < 0n ? nought : points;
}
