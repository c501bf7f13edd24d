import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareDecimals, decimalOrThrow, formatDecimal, roundDown, roundHalfEven, roundHalfUp } from '#core/numbers';
import { bandEdges, findBand, moveCutOff, type Precision } from './index.js';
import { letterBands } from '../../test/letter-scale.fixture.js';

const whole: Precision = { digits: 0, rounding: roundHalfUp };
const labelOf = (percent: string, precision: Precision) =>
  findBand(letterBands, decimalOrThrow(percent), precision).band?.label;

describe('the letter of a percent, both ends of each published range', () => {
  it.each([
    ['A+', '97', '100'],
    ['A', '93', '96'],
    ['A-', '90', '92'],
    ['B+', '87', '89'],
    ['B', '83', '86'],
    ['B-', '80', '82'],
    ['C+', '77', '79'],
    ['C', '73', '76'],
    ['C-', '70', '72'],
    ['D+', '67', '69'],
    ['D', '65', '66'],
    ['F', '0', '64'],
  ])('%s runs from %s to %s', (label, lowest, highest) => {
    expect([labelOf(lowest, whole), labelOf(highest, whole)]).toEqual([label, label]);
  });

  // Common practice: 55 fails, 83 and 85 are a B, 90 is an A-.
  it.each([
    ['55', 'F'],
    ['83', 'B'],
    ['85', 'B'],
    ['90', 'A-'],
  ])('%s is %s', (percent, label) => {
    expect(labelOf(percent, whole)).toBe(label);
  });
});

describe('the value is rounded as the item says before it meets a cut-off', () => {
  it.each([
    ['89.46', { digits: 1, rounding: roundHalfUp }, 'B+', '89.5'],
    ['89.46', { digits: 0, rounding: roundHalfUp }, 'B+', '89'],
    ['89.5', { digits: 0, rounding: roundHalfUp }, 'A-', '90'],
    ['86.5', { digits: 0, rounding: roundHalfEven }, 'B', '86'],
    ['89.99', { digits: 0, rounding: roundDown }, 'B+', '89'],
    ['89.995', { digits: 2, rounding: roundHalfUp }, 'A-', '90.00'],
  ] as const)('%s with %j is %s', (percent, precision, label, rounded) => {
    const found = findBand(letterBands, decimalOrThrow(percent), precision);
    expect([found.band?.label, formatDecimal(found.rounded)]).toEqual([label, rounded]);
  });
});

it('finds no band below the lowest cut-off, nor on an empty scale', () => {
  expect(findBand(letterBands, decimalOrThrow('-1'), whole).band).toBeUndefined();
  expect(findBand([], decimalOrThrow('50'), whole)).toEqual({ rounded: { units: 50n, digits: 0 }, band: undefined });
});

const precisions = fc.record({
  digits: fc.integer({ min: 0, max: 2 }),
  rounding: fc.constantFrom(roundHalfUp, roundHalfEven, roundDown),
});

describe('edges', () => {
  it('are the last value below and the first value of each cut-off', () => {
    const edges = bandEdges(letterBands, { digits: 1, rounding: roundHalfUp }, 2);
    const aMinus = edges.find(({ band }) => band.label === 'A-')!;
    expect([formatDecimal(aMinus.lastBelow), formatDecimal(aMinus.firstValue), aMinus.below?.label]).toEqual([
      '89.94',
      '89.95',
      'B+',
    ]);
  });

  it('agree with the rule that finds bands, whatever the precision', () => {
    fc.assert(
      fc.property(precisions, fc.integer({ min: 0, max: 3 }), (precision, valueDigits) => {
        for (const { band, below, firstValue, lastBelow } of bandEdges(letterBands, precision, valueDigits)) {
          expect(findBand(letterBands, firstValue, precision).band?.label).toBe(band.label);
          expect(findBand(letterBands, lastBelow, precision).band?.label).toBe(below?.label);
        }
      }),
      { seed: 7, numRuns: 60 },
    );
  });
});

describe('moving a cut-off', () => {
  it('stops one step short of its neighbours and keeps the order of the bands', () => {
    fc.assert(
      fc.property(fc.nat({ max: letterBands.length - 1 }), fc.integer({ min: -500, max: 11_000 }), (index, units) => {
        const moved = moveCutOff(letterBands, index, { units: BigInt(units), digits: 2 }, 1);
        const inOrder = moved.every((band, at) => at === 0 || compareDecimals(moved[at - 1]!.lowest, band.lowest) > 0);
        const untouched = moved.every((band, at) => at === index || band === letterBands[at]);
        return inOrder && untouched;
      }),
      { seed: 8 },
    );
  });

  it('takes the wanted value where there is room', () => {
    expect(formatDecimal(moveCutOff(letterBands, 2, decimalOrThrow('89.5'), 1)[2]!.lowest)).toBe('89.5');
    expect(formatDecimal(moveCutOff(letterBands, 2, decimalOrThrow('99'), 1)[2]!.lowest)).toBe('92.9');
    expect(formatDecimal(moveCutOff(letterBands, 2, decimalOrThrow('12'), 1)[2]!.lowest)).toBe('87.1');
  });
});
