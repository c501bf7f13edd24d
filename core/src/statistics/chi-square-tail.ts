import { logGamma } from './log-gamma.js';

/** Beyond this many rounds the sum no longer moves. */
const mostRounds = 500;
const small = 1e-15;

/**
 * The chance of a chi-square of `value` or more with so many degrees of freedom: the upper incomplete gamma function, by its
 * series below the mean and by Lentz's continued fraction above it.
 * @example chiSquareTail(3.841, 1) // 0.05
 */
export function chiSquareTail(value: number, freedom: number): number {
  if (value <= 0) return 1;
  const [shape, at] = [freedom / 2, value / 2];
  const scale = Math.exp(shape * Math.log(at) - at - logGamma(shape));
  return at < shape + 1 ? 1 - scale * series(shape, at) : scale * continuedFraction(shape, at);
}

function series(shape: number, at: number): number {
  let term = 1 / shape;
  let sum = term;
  for (let round = 1; round < mostRounds && term > sum * small; round++) {
    term *= at / (shape + round);
    sum += term;
  }
  return sum;
}

function continuedFraction(shape: number, at: number): number {
  let below = at + 1 - shape;
  let [above, inverse] = [1e300, 1 / below];
  let result = inverse;
  for (let round = 1; round < mostRounds; round++) {
    const factor = -round * (round - shape);
    below += 2;
    inverse = 1 / (factor * inverse + below);
    above = below + factor / above;
    const step = inverse * above;
    result *= step;
    if (Math.abs(step - 1) < small) break;
  }
  return result;
}
