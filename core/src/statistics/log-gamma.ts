/** From here on Stirling's series is exact to the last digit that counts. */
const large = 12;

/**
 * The logarithm of the gamma function, of a number above 0: Stirling's series, reached by Γ(x) = Γ(x + 1) / x.
 * @example logGamma(5) // ln 24
 */
export function logGamma(value: number): number {
  let [at, sum] = [value, 0];
  for (; at < large; at++) sum -= Math.log(at);
  const square = at * at;
  const series = (1 / 12 - (1 / 360 - (1 / 1260 - 1 / (1680 * square)) / square) / square) / at;
  return sum + (at - 0.5) * Math.log(at) - at + Math.log(2 * Math.PI) / 2 + series;
}
