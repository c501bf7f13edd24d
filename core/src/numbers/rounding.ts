import type { Rational } from './rational.js';

/** Turns an exact fraction into a whole number. Which one is always passed in; there is no default rounding. */
export type Rounding = (value: Rational) => bigint;

/** To the nearest whole number; exactly half goes up, towards plus infinity: 2.5 → 3, -2.5 → -2. */
export const roundHalfUp: Rounding = ({ numerator, denominator }) =>
  floorDivide(2n * numerator + denominator, 2n * denominator);

/** To the nearest whole number; exactly half goes to the even one: 2.5 → 2, 3.5 → 4. */
export const roundHalfEven: Rounding = ({ numerator, denominator }) => {
  const floor = floorDivide(numerator, denominator);
  const twiceRest = 2n * (numerator - floor * denominator);
  if (twiceRest < denominator) return floor;
  if (twiceRest > denominator) return floor + 1n;
  return floor % 2n === 0n ? floor : floor + 1n;
};

/** Cut off, towards zero: 2.9 → 2, -2.9 → -2. */
export const roundDown: Rounding = ({ numerator, denominator }) => numerator / denominator;

/**
 * Cut off, but never to a last digit of 0 or 5 when something was cut: what is rounded again, to fewer digits and by any of
 * the roundings here, then comes out as if it had been rounded once.
 * Source: General Decimal Arithmetic specification, rounding "round-05up" (from memory). Not for values below 0.
 */
export const roundSticky: Rounding = ({ numerator, denominator }) => {
  const cut = numerator / denominator;
  const isExact = cut * denominator === numerator;
  return !isExact && cut % 5n === 0n ? cut + 1n : cut;
};

/** The roundings by the name that set-up data and the wire use. */
export const roundings = { halfUp: roundHalfUp, halfEven: roundHalfEven, down: roundDown } as const;

export type RoundingName = keyof typeof roundings;

function floorDivide(a: bigint, b: bigint): bigint {
  const quotient = a / b;
  return a % b < 0n ? quotient - 1n : quotient;
}
