import { describe, expect, it } from 'vitest';
import { meanShift, type Sample } from './mean-shift.js';
import { logGamma } from './log-gamma.js';
import { studentQuantile } from './student-quantile.js';

const sampleOf = (values: readonly number[]): Sample => {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const variance = values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1);
  return { count: values.length, mean, variance };
};

describe('the logarithm of the gamma function', () => {
  // Γ(n) = (n − 1)! and Γ(1/2) = √π: closed forms.
  it.each([
    [1, 0],
    [5, Math.log(24)],
    [11, Math.log(3_628_800)],
    [0.5, Math.log(Math.PI) / 2],
    [2.5, Math.log((3 / 4) * Math.sqrt(Math.PI))],
  ])('of %d', (value, expected) => expect(logGamma(value)).toBeCloseTo(expected, 12));

  it('of a number is that of the one before and the number before', () => {
    for (const value of [0.1, 0.77, 3.3, 17.776, 250.4])
      expect(logGamma(value + 1) - logGamma(value)).toBeCloseTo(Math.log(value), 11);
  });
});

describe('Student’s t', () => {
  // NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.2, critical values of Student's t, 0.975 and 0.95 of one side.
  it.each([
    [1, 12.706, 6.314],
    [2, 4.303, 2.92],
    [5, 2.571, 2.015],
    [10, 2.228, 1.812],
    [30, 2.042, 1.697],
    [60, 2.0, 1.671],
    [100, 1.984, 1.66],
  ])('with %d degrees of freedom', (freedom, twentieth, tenth) => {
    expect(studentQuantile(0.05, freedom)).toBeCloseTo(twentieth, 3);
    expect(studentQuantile(0.1, freedom)).toBeCloseTo(tenth, 3);
  });

  it('with one and with two degrees of freedom has a closed form', () => {
    // Cauchy's distribution, and t / √(2 + t²) = 1 − share.
    for (const share of [0.5, 0.1, 0.01, 0.001]) {
      expect(studentQuantile(share, 1) / Math.tan((Math.PI / 2) * (1 - share))).toBeCloseTo(1, 9);
      const within = 1 - share;
      expect(studentQuantile(share, 2) / (within * Math.sqrt(2 / (1 - within ** 2)))).toBeCloseTo(1, 9);
    }
  });
});

describe('how far two means lie apart', () => {
  it('is what Welch’s interval says of Student’s own data', () => {
    // Hours of sleep gained by two drugs (Student, The probable error of a mean, Biometrika 6, 1908); the interval as the
    // manual of R prints it for t.test(extra ~ group, data = sleep): from memory.
    const first = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0];
    const second = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4];
    const { shift, low, high } = meanShift(sampleOf(first), sampleOf(second))!;
    expect(shift).toBeCloseTo(-1.58, 10);
    expect([low, high].map((each) => each.toFixed(6))).toEqual(['-3.365483', '0.205483']);
  });

  it('is the same the other way round, and moves with the values', () => {
    const [one, other] = [sampleOf([1, 2, 4, 8]), sampleOf([3, 3, 5, 9, 10])];
    const [there, back] = [meanShift(one, other)!, meanShift(other, one)!];
    expect([back.shift, back.low, back.high]).toEqual([-there.shift, -there.high, -there.low]);
    const moved = meanShift({ ...one, mean: one.mean + 7 }, other)!;
    expect(moved.low - there.low).toBeCloseTo(7, 10);
  });

  it('covers the truth in about nineteen of twenty samples', () => {
    // A generator of its own, so that the same numbers come on every machine: Park and Miller's.
    let state = 20_260_123;
    const next = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
    const roughlyNormal = () => Array.from({ length: 12 }, next).reduce((sum, each) => sum + each, -6);
    let covered = 0;
    for (let round = 0; round < 2_000; round++) {
      const one = sampleOf(Array.from({ length: 12 }, () => 3 + roughlyNormal()));
      const other = sampleOf(Array.from({ length: 25 }, () => 2 * roughlyNormal()));
      const { low, high } = meanShift(one, other)!;
      if (low < 3 && 3 < high) covered++;
    }
    expect(covered / 2_000).toBeGreaterThan(0.935);
    expect(covered / 2_000).toBeLessThan(0.965);
  });

  it.each([
    ['one value', { count: 1, mean: 3, variance: 0 }],
    ['no spread', { count: 9, mean: 3, variance: 0 }],
  ])('is not told of %s', (_what, sample) => {
    expect(meanShift(sample, { count: 12, mean: 3, variance: 0 })).toBeUndefined();
  });
});
