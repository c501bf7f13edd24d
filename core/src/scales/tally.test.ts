import { describe, expect, it } from 'vitest';
import { decimalOrThrow, roundHalfUp } from '#core/numbers';
import { countByBand, countJustBelow, draftEffect, histogramOf, moveCutOff, orderBands, topOf } from './index.js';
import { letterBands } from '../../test/letter-scale.fixture.js';

const tenths = { digits: 1, rounding: roundHalfUp };
const tallies = [
  { percent: decimalOrThrow('89.46'), grades: 3 },
  { percent: decimalOrThrow('90'), grades: 2 },
  { percent: decimalOrThrow('101.5'), grades: 1 },
  { percent: decimalOrThrow('64.99'), grades: 5 },
];

describe('a tally of percents', () => {
  it('fills the histogram by whole percent, what is above 100 in the last place', () => {
    const { step, counts } = histogramOf(tallies, topOf(null));
    expect(step).toBe(1);
    expect([counts.length, counts[64], counts[89], counts[90], counts[100]]).toEqual([101, 5, 3, 2, 1]);
  });

  it('fills the histogram of a level scale by tenths of a level', () => {
    const levels = ['3.45', '3.4', '0', '4', '4.2'].map((level) => ({ percent: decimalOrThrow(level), grades: 1 }));
    const { step, counts } = histogramOf(levels, decimalOrThrow('4'));
    expect([step, counts.length, counts[34], counts[0], counts[40]]).toEqual([0.1, 41, 2, 1, 2]);
  });

  it('falls into the bands as each value would', () => {
    const counts = countByBand(letterBands, tallies, tenths);
    expect(
      Object.fromEntries(letterBands.map(({ label }, at) => [label, counts[at]]).filter(([, count]) => count)),
    ).toEqual({
      'A+': 1,
      'A-': 2,
      'B+': 3,
      D: 5, // 64.99 rounds to 65.0
    });
  });

  it('tells whom a lower cut-off lifts and a higher one drops', () => {
    const cutOff = (percent: string) => moveCutOff(letterBands, 2, decimalOrThrow(percent), 1);
    expect(draftEffect(letterBands, cutOff('89.5'), tallies, tenths)).toEqual({ up: 3, down: 0 });
    expect(draftEffect(letterBands, cutOff('91'), tallies, tenths)).toEqual({ up: 0, down: 2 });
  });

  it('counts who is less than half a point below a cut-off', () => {
    expect(countJustBelow(letterBands, tallies, topOf(null))).toBe(5);
  });
});

it('orders bands from the highest cut-off down', () => {
  expect(orderBands(letterBands.toReversed())).toEqual(letterBands);
});
