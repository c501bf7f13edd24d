import { rational, type Rational } from '#core/numbers';

/** Numbers counted in units of 10^-40. */
const one = 10n ** 40n;
const keptDigits = 10n;
/** In hundredths. */
const oneLevel = 100;

/**
 * Where the curve a × xᵇ, fitted to the levels by least squares of the logarithms, stands at the last of them, held to the
 * scale: never above its highest level, never below 0. A level of 0 has no logarithm; where one is among the levels, the
 * curve is fitted to all of them one level higher and brought down again, so that a 0 counts as the 0 it is. The result is
 * irrational; it is worked out to forty digits and kept to ten, half up.
 * @param levels hundredths, in order, at least one
 * @param most the highest level, in hundredths
 */
export function powerLaw(levels: readonly number[], most: number): Rational {
  const lift = levels.includes(0) ? oneLevel : 0;
  const known = levels.map((level, at) => ({ x: logarithm(at + 1), y: logarithm(level + lift) }));
  const count = BigInt(known.length);
  const [sumX, sumY] = [sum(known.map(({ x }) => x)), sum(known.map(({ y }) => y))];
  const spread = count * sum(known.map(({ x }) => (x * x) / one)) - (sumX * sumX) / one;
  const together = count * sum(known.map(({ x, y }) => (x * y) / one)) - (sumX * sumY) / one;
  const slope = known.length === 1 ? 0n : (together * one) / spread;
  const start = (sumY - (slope * sumX) / one) / count;
  const value = exponential(start + (slope * logarithm(levels.length)) / one);
  // value counts hundredths of a level
  const step = one / 10n ** (keptDigits - 2n);
  const kept = (value + step / 2n) / step - BigInt(lift) * 10n ** (keptDigits - 2n);
  const highest = BigInt(most) * 10n ** (keptDigits - 2n);
  return rational(kept < 0n ? 0n : kept > highest ? highest : kept, 10n ** keptDigits);
}

function sum(values: readonly bigint[]): bigint {
  return values.reduce((total, value) => total + value, 0n);
}

/** The natural logarithm of a whole number from 1: halved into [1, 2), then 2 × artanh((m − 1) ÷ (m + 1)). */
function logarithm(value: number): bigint {
  let [mantissa, halvings] = [BigInt(value) * one, 0n];
  while (mantissa >= 2n * one) [mantissa, halvings] = [mantissa / 2n, halvings + 1n];
  return areaTangent(mantissa) + halvings * logarithmOfTwo;
}

function areaTangent(mantissa: bigint): bigint {
  const ratio = ((mantissa - one) * one) / (mantissa + one);
  const square = (ratio * ratio) / one;
  let [power, total, odd] = [ratio, 0n, 1n];
  while (power !== 0n) {
    total += power / odd;
    power = (power * square) / one;
    odd += 2n;
  }
  return 2n * total;
}

const logarithmOfTwo = areaTangent(2n * one);

function exponential(value: bigint): bigint {
  let doublings = value / logarithmOfTwo;
  if (doublings * logarithmOfTwo > value) doublings--;
  const rest = value - doublings * logarithmOfTwo;
  let [term, total, step] = [one, one, 1n];
  while (term !== 0n) {
    term = (term * rest) / one / step;
    total += term;
    step++;
  }
  return doublings >= 0n ? total << doublings : total >> -doublings;
}
