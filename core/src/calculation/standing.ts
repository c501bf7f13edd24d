import { fromDecimal, type Decimal, type Rational } from '#core/numbers';
import type { LevelRule } from './policy.js';

/** Where a student stands by a standard. */
export type Standing =
  | 'exceeds'
  | 'meets'
  | 'below'
  /** Some scores, but fewer than the policy asks for. */
  | 'too little evidence'
  | 'no evidence';

/**
 * The standing of an exact level: three meets and four exceeds on the usual scale from 0 to 4 (common practice).
 * @param level undefined where the evidence does not suffice
 * @param count how many scores there are
 */
export function standingOf(
  level: Rational | null | undefined,
  count: number,
  { meets, exceeds }: Pick<LevelRule, 'meets' | 'exceeds'>,
): Standing {
  if (!level) return count === 0 ? 'no evidence' : 'too little evidence';
  if (reaches(level, exceeds)) return 'exceeds';
  return reaches(level, meets) ? 'meets' : 'below';
}

function reaches({ numerator, denominator }: Rational, least: Decimal): boolean {
  const { numerator: own, denominator: of } = fromDecimal(least);
  return numerator * of >= own * denominator;
}
