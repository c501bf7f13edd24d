import fc from 'fast-check';
import { expect, it } from 'vitest';
import { createRulerAxis } from './ruler-axis';

it('runs from 0 at the left to 100 at the right, narrower below the lowest cut-off', () => {
  const axis = createRulerAxis(60, 100);
  expect([axis.bend, axis.at(0), axis.at(100)]).toEqual([55, 0, 1]);
  expect(axis.at(50) - axis.at(40)).toBeLessThan(axis.at(80) - axis.at(70));
});

it('is even where the lowest cut-off lies low', () => {
  const axis = createRulerAxis(15, 100);
  expect([axis.bend, axis.at(25), axis.at(75)]).toEqual([0, 0.25, 0.75]);
});

it('is drawn in levels where the scale has them', () => {
  const axis = createRulerAxis(1.5, 4);
  expect([axis.bend, axis.at(0), axis.at(4), axis.valueAt(1)]).toEqual([1.4000000000000001, 0, 1, 4]);
});

it('finds the way back from every place, and never turns round', () => {
  const cutOffs = fc.integer({ min: 0, max: 99 });
  fc.assert(
    fc.property(
      cutOffs,
      fc.double({ min: 0, max: 100, noNaN: true }),
      fc.double({ min: 0, max: 100, noNaN: true }),
      (cutOff, a, b) => {
        const axis = createRulerAxis(cutOff, 100);
        expect(axis.valueAt(axis.at(a))).toBeCloseTo(a, 6);
        return a === b || a < b === axis.at(a) < axis.at(b) || Math.abs(a - b) < 1e-9;
      },
    ),
    { seed: 11 },
  );
});
