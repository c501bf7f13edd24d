import { add, divide, multiply, rational, zero, type Rational } from '#core/numbers';
import type { Method } from './policy.js';
import { powerLaw } from './power-law.js';

/**
 * One level out of several, in the order of their due dates. Empty is undefined.
 * @param levels hundredths, at least one
 * @param newestShare what each newer level counts against all before it, in hundredths of a percent
 * @param most the highest level, in hundredths, above which nothing is predicted
 * @example decaying at 75 %: 2, 3, 4 → 0.75 × 4 + 0.25 × (0.75 × 3 + 0.25 × 2) = 3.6875
 */
export function levelOfEvidence(
  method: Method,
  levels: readonly number[],
  newestShare: number,
  most: number,
): Rational | undefined {
  if (levels.length === 0) return undefined;
  switch (method) {
    case 'mostRecent':
      return hundredths(levels.at(-1)!);
    case 'highest':
      return hundredths(Math.max(...levels));
    case 'mode':
      return hundredths(mostFrequent(levels));
    case 'mean':
      return divide(levels.map(hundredths).reduce(add, zero), rational(BigInt(levels.length), 1n));
    case 'decaying':
      return decaying(levels, newestShare);
    case 'powerLaw':
      return powerLaw(levels, most);
    default:
      throw new RangeError(`${method} is no method of evidence`);
  }
}

function decaying(levels: readonly number[], newestShare: number): Rational {
  const newer = rational(BigInt(newestShare), 10_000n);
  const older = rational(10_000n - BigInt(newestShare), 10_000n);
  return levels.map(hundredths).reduce((before, level) => add(multiply(newer, level), multiply(older, before)));
}

/** Of several as frequent ones the one that came last. */
function mostFrequent(levels: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const level of levels) counts.set(level, (counts.get(level) ?? 0) + 1);
  const most = Math.max(...counts.values());
  return levels.findLast((level) => counts.get(level) === most)!;
}

function hundredths(units: number): Rational {
  return rational(BigInt(units), 100n);
}
