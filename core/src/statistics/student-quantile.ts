import { logGamma } from './log-gamma.js';

const mostRounds = 500;
const small = 1e-15;
/** No quantile that anybody asks for lies beyond. */
const farthest = 1e9;

/**
 * So far from 0, on either side, lies less than `share` of Student's t distribution: found by halving, as the distribution
 * has no inverse in closed form.
 * @param share of both tails together, between 0 and 1
 * @param freedom degrees of freedom, whole or not, above 0
 * @example studentQuantile(0.05, 10) // 2.228
 */
export function studentQuantile(share: number, freedom: number): number {
  let [low, high] = [0, 1];
  while (bothTails(high, freedom) > share && high < farthest) high *= 2;
  for (let round = 0; round < 200 && high - low > high * small; round++) {
    const middle = (low + high) / 2;
    if (bothTails(middle, freedom) > share) low = middle;
    else high = middle;
  }
  return high;
}

/** What lies farther out than t on either side: the incomplete beta function of ν / (ν + t²) with ν / 2 and 1 / 2. */
function bothTails(t: number, freedom: number): number {
  const at = freedom / (freedom + t * t);
  const [a, b] = [freedom / 2, 0.5];
  const scale = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(at) + b * Math.log1p(-at));
  return at < (a + 1) / (a + b + 2) ? (scale * fraction(at, a, b)) / a : 1 - (scale * fraction(1 - at, b, a)) / b;
}

/** The continued fraction of the incomplete beta function, by Lentz's way. */
function fraction(at: number, a: number, b: number): number {
  let [above, inverse] = [1, 1 / (1 - ((a + b) * at) / (a + 1))];
  let result = inverse;
  for (let round = 1; round < mostRounds; round++) {
    const even = (round * (b - round) * at) / ((a + 2 * round - 1) * (a + 2 * round));
    inverse = 1 / (1 + even * inverse);
    above = 1 + even / above;
    result *= inverse * above;
    const odd = (-(a + round) * (a + b + round) * at) / ((a + 2 * round) * (a + 2 * round + 1));
    inverse = 1 / (1 + odd * inverse);
    above = 1 + odd / above;
    const step = inverse * above;
    result *= step;
    if (Math.abs(step - 1) < small) break;
  }
  return result;
}
