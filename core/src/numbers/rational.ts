import type { Decimal } from './decimal.js';

/** An exact fraction. The denominator is above 0; it is not always in lowest terms. */
export interface Rational {
  readonly numerator: bigint;
  readonly denominator: bigint;
}

export const zero: Rational = { numerator: 0n, denominator: 1n };

/** @throws RangeError when the denominator is 0 */
export function rational(numerator: bigint, denominator: bigint): Rational {
  if (denominator === 0n) throw new RangeError('a fraction cannot have the denominator 0');
  return denominator < 0n ? { numerator: -numerator, denominator: -denominator } : { numerator, denominator };
}

export function fromDecimal(value: Decimal): Rational {
  return { numerator: value.units, denominator: 10n ** BigInt(value.digits) };
}

export function add(a: Rational, b: Rational): Rational {
  return lowestTerms({
    numerator: a.numerator * b.denominator + b.numerator * a.denominator,
    denominator: a.denominator * b.denominator,
  });
}

export function multiply(a: Rational, b: Rational): Rational {
  return lowestTerms({ numerator: a.numerator * b.numerator, denominator: a.denominator * b.denominator });
}

/** @throws RangeError when `b` is 0 */
export function divide(a: Rational, b: Rational): Rational {
  return lowestTerms(rational(a.numerator * b.denominator, a.denominator * b.numerator));
}

function lowestTerms({ numerator, denominator }: Rational): Rational {
  let [a, b] = [numerator < 0n ? -numerator : numerator, denominator];
  while (b) [a, b] = [b, a % b];
  return a > 1n ? { numerator: numerator / a, denominator: denominator / a } : { numerator, denominator };
}

/** Below 0 when a is less than b, 0 when they are equal. Denominators are above 0. */
export function compareRationals(a: Rational, b: Rational): number {
  const difference = a.numerator * b.denominator - b.numerator * a.denominator;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}
