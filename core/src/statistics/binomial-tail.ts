/**
 * The chance of `successes` or more out of `trials` when each succeeds with `chance`, exact but for rounding: the terms of
 * the binomial distribution added up from the far end.
 * @example binomialTail(8, 10, 0.5) // 0.0546875
 */
export function binomialTail(successes: number, trials: number, chance: number): number {
  if (successes <= 0) return 1;
  if (successes > trials) return 0;
  const odds = Math.log(chance) - Math.log1p(-chance);
  // The logarithm of the term of all successes, and of each term with one fewer.
  let logTerm = trials * Math.log(chance);
  let sum = 0;
  for (let at = trials; at >= successes; at--) {
    sum += Math.exp(logTerm);
    logTerm += Math.log(at) - Math.log(trials - at + 1) - odds;
  }
  return Math.min(1, sum);
}
