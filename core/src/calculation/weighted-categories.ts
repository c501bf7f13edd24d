import { add, divide, fromDecimal, multiply, rational, zero, type Decimal, type Rational } from '#core/numbers';

export interface WeightedCategory {
  readonly name: string;
  /** Any positive weight; weights are taken as shares of the weights of the categories that have scores. */
  readonly weight: Decimal;
}

export interface Score {
  readonly category: string;
  /** Null when the score does not count: exempt, or nothing recorded. */
  readonly points: Decimal | null;
  /** Points possible, above 0. */
  readonly possible: Decimal;
}

/**
 * The percent of a grade book: within a category points earned over points possible, the categories then by weight,
 * renormalised over those that have scores. Undefined when nothing has a score.
 * @example // field work 36.48 of 40, tests 33.60 of 40, journal 16.32 of 20 → 86.40
 */
export function weightedCategories(
  categories: readonly WeightedCategory[],
  scores: readonly Score[],
): Rational | undefined {
  let [sum, weights] = [zero, zero];
  for (const { name, weight } of categories) {
    const counted = scores.filter((score) => score.category === name && score.points !== null);
    if (counted.length === 0) continue;
    const earned = counted.map((score) => fromDecimal(score.points!)).reduce(add, zero);
    const possible = counted.map((score) => fromDecimal(score.possible)).reduce(add, zero);
    sum = add(sum, multiply(divide(earned, possible), fromDecimal(weight)));
    weights = add(weights, fromDecimal(weight));
  }
  return weights.numerator === 0n ? undefined : multiply(divide(sum, weights), rational(100n, 1n));
}
