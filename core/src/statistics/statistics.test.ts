import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { binomialTail, chiSquareTail, compareCounts, fewestFalseAlarms } from './index.js';

describe('the chance of a chi-square', () => {
  // NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.4, critical values of the chi-square distribution.
  it.each([
    [3.841, 1, 0.05],
    [6.635, 1, 0.01],
    [5.991, 2, 0.05],
    [11.07, 5, 0.05],
    [15.086, 5, 0.01],
    [18.307, 10, 0.05],
    [2.558, 10, 0.99],
    [43.773, 30, 0.05],
    [124.342, 100, 0.05],
  ])('of %d with %d degrees of freedom is %d', (value, freedom, chance) =>
    expect(chiSquareTail(value, freedom)).toBeCloseTo(chance, 4),
  );

  it('is 1 of nothing, and with 2 degrees of freedom an exponential, which has a formula of its own', () => {
    expect(chiSquareTail(0, 3)).toBe(1);
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 80, noNaN: true }), (value) => {
        expect(chiSquareTail(value, 2)).toBeCloseTo(Math.exp(-value / 2), 12);
      }),
      { seed: 7 },
    );
  });
});

describe('the same by another formula', () => {
  // For an even number the chance is that of fewer than half as many events of a Poisson process.
  it('is a sum of Poisson terms for an even number of degrees', () => {
    const cases = fc.record({
      half: fc.integer({ min: 1, max: 40 }),
      value: fc.double({ min: 0.01, max: 200, noNaN: true }),
    });
    fc.assert(
      fc.property(cases, ({ half, value }) => {
        let [term, sum] = [Math.exp(-value / 2), 0];
        for (let at = 1; at <= half; at++) {
          sum += term;
          term *= value / 2 / at;
        }
        expect(chiSquareTail(value, 2 * half)).toBeCloseTo(sum, 12);
      }),
      { seed: 13 },
    );
  });
});

describe('the chance of so many successes', () => {
  it.each([
    // By hand: (45 + 10 + 1) / 1024, and 1 / 32.
    [8, 10, 0.5, 56 / 1024],
    [5, 5, 0.5, 1 / 32],
    [0, 10, 0.2, 1],
    [11, 10, 0.5, 0],
    // 1 - 0.8^10
    [1, 10, 0.2, 1 - 0.8 ** 10],
  ])('%d of %d at %d is %d', (successes, trials, chance, expected) =>
    expect(binomialTail(successes, trials, chance)).toBeCloseTo(expected, 12),
  );

  it('falls with each success more, and is that of the failures looked at from the other end', () => {
    const cases = fc.record({
      trials: fc.integer({ min: 1, max: 400 }),
      share: fc.double({ min: 0.01, max: 0.99, noNaN: true }),
      chance: fc.double({ min: 0.05, max: 0.95, noNaN: true }),
    });
    fc.assert(
      fc.property(cases, ({ trials, share, chance }) => {
        const successes = Math.ceil(trials * share);
        const tail = binomialTail(successes, trials, chance);
        expect(binomialTail(successes + 1, trials, chance)).toBeLessThanOrEqual(tail);
        expect(tail + binomialTail(trials - successes + 1, trials, 1 - chance)).toBeCloseTo(1, 9);
      }),
      { seed: 11 },
    );
  });
});

describe('counts beside counts', () => {
  it('of two kinds give the chi-square of a table of four: n (ad − bc)² over the four sums', () => {
    const { chiSquare, freedom, chance, effect } = compareCounts([10, 20], [30, 40])!;
    expect([chiSquare, freedom]).toEqual([expect.closeTo((100 * 200 ** 2) / (30 * 70 * 40 * 60), 12), 1]);
    expect(effect).toBeCloseTo(Math.sqrt(chiSquare / 100), 12);
    expect(chance).toBeCloseTo(chiSquareTail(chiSquare, 1), 12);
  });

  it('puts neighbours together until each is expected five times, and says nothing where one is left', () => {
    expect(compareCounts([1, 2, 3, 14], [2, 2, 4, 12])).toEqual(compareCounts([6, 14], [8, 12]));
    expect(compareCounts([8, 0, 0], [9, 1, 0])).toBeUndefined();
    expect(compareCounts([], [])).toBeUndefined();
    expect(compareCounts([30, 0, 30], [30, 0, 30])?.chiSquare).toBe(0);
  });
});

describe('of many chances, those that are taken for more', () => {
  // Benjamini and Hochberg 1995, Journal of the Royal Statistical Society B 57, section 3.2: the first four of fifteen.
  const published = [
    0.0001, 0.0004, 0.0019, 0.0095, 0.0201, 0.0278, 0.0298, 0.0344, 0.0459, 0.324, 0.4262, 0.5719, 0.6528, 0.759, 1,
  ];

  it('are those of the published example, in any order', () => {
    const expected = published.map((_chance, at) => at < 4);
    expect(fewestFalseAlarms(published, 0.05)).toEqual(expected);
    expect(fewestFalseAlarms(published.toReversed(), 0.05)).toEqual(expected.toReversed());
  });

  it('are none of none, and all of those that are alike small', () => {
    expect(fewestFalseAlarms([], 0.05)).toEqual([]);
    expect(fewestFalseAlarms([0.04, 0.04, 0.04], 0.05)).toEqual([true, true, true]);
  });
});
