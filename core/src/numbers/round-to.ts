import type { Decimal } from './decimal.js';
import type { Rational } from './rational.js';
import type { Rounding } from './rounding.js';

/**
 * The value with `digits` digits after the point. Round once, last: a value that was rounded before is a new value.
 * @example roundTo(fromDecimal(decimalOrThrow('89.45')), 1, roundHalfUp) // 89.5
 */
export function roundTo(value: Rational, digits: number, rounding: Rounding): Decimal {
  const scaled = { numerator: value.numerator * 10n ** BigInt(digits), denominator: value.denominator };
  return { units: rounding(scaled), digits };
}
