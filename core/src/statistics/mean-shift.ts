import { studentQuantile } from './student-quantile.js';

/** What is known of a group of values; the variance is that of a sample, over one less than the count. */
export interface Sample {
  readonly count: number;
  readonly mean: number;
  readonly variance: number;
}

export interface MeanShift {
  /** By how much the first mean lies above the second. */
  readonly shift: number;
  /** The interval that covers the shift in so many of a hundred such comparisons. */
  readonly low: number;
  readonly high: number;
}

/** One comparison in twenty misses. */
const misses = 0.05;

/**
 * How far two means lie apart, with an interval: Welch's, for groups of different sizes and spreads. Undefined where either has
 * fewer than two values, or nothing varies.
 */
export function meanShift(one: Sample, other: Sample): MeanShift | undefined {
  if (one.count < 2 || other.count < 2) return undefined;
  const [a, b] = [one.variance / one.count, other.variance / other.count];
  if (a + b === 0) return undefined;
  const freedom = (a + b) ** 2 / (a ** 2 / (one.count - 1) + b ** 2 / (other.count - 1));
  const shift = one.mean - other.mean;
  const reach = studentQuantile(misses, freedom) * Math.sqrt(a + b);
  return { shift, low: shift - reach, high: shift + reach };
}
