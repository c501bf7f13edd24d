import { fromDecimal, multiply, rational, roundHalfUp, roundTo, type Credits } from '#core/numbers';

/** Digits that credits are kept with. */
const creditDigits = 4;

/**
 * A course's credits dealt out over its periods. The shares are as even as four digits allow and always add up to the
 * credits: a third three times is 0.3333, 0.3334 and 0.3333, never 0.9999 in all.
 * @example creditShares(decimalOrThrow('1'), 4) // 0.2500 four times
 */
export function creditShares(credits: Credits, periods: number): Credits[] {
  const upTo = (count: number) =>
    roundTo(multiply(fromDecimal(credits), rational(BigInt(count), BigInt(periods))), creditDigits, roundHalfUp).units;
  return Array.from({ length: periods }, (_each, index) => ({
    units: upTo(index + 1) - upTo(index),
    digits: creditDigits,
  }));
}
