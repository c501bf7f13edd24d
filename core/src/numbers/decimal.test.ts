import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  add,
  compareDecimals,
  decimalOrThrow,
  divide,
  formatAtLeast,
  formatDecimal,
  multiply,
  parseDecimal,
  rational,
} from './index.js';

describe('parseDecimal', () => {
  it.each([
    ['86.40', { units: 8640n, digits: 2 }],
    [' 7 ', { units: 7n, digits: 0 }],
    ['-0.5', { units: -5n, digits: 1 }],
    ['90.', { units: 90n, digits: 0 }],
  ])('reads %j', (text, expected) => expect(parseDecimal(text)).toEqual(expected));

  it.each(['abc', '', '1e9', '8 6', '1,5', '.5', '0x10', 'NaN', '1'.repeat(16)])('refuses %j', (text) => {
    expect(parseDecimal(text)).toBeUndefined();
    expect(() => decimalOrThrow(text)).toThrow(RangeError);
  });

  it('gives back what was written', () => {
    const written = fc.tuple(fc.bigInt({ min: -(10n ** 14n), max: 10n ** 14n }), fc.integer({ min: 0, max: 12 }));
    fc.assert(
      fc.property(written, ([units, digits]) => {
        expect(parseDecimal(formatDecimal({ units, digits }))).toEqual({ units, digits });
      }),
      { seed: 1 },
    );
  });
});

it('compares by value, not by the digits written', () => {
  expect(compareDecimals(decimalOrThrow('86.4'), decimalOrThrow('86.40'))).toBe(0);
  expect(compareDecimals(decimalOrThrow('89.5'), decimalOrThrow('89.49'))).toBe(1);
  expect(compareDecimals(decimalOrThrow('-1'), decimalOrThrow('0.5'))).toBe(-1);
});

it('adds, multiplies and divides fractions exactly', () => {
  expect(add(rational(1n, 3n), rational(1n, 6n))).toEqual(rational(1n, 2n));
  expect(multiply(rational(2n, 3n), rational(3n, 4n))).toEqual(rational(1n, 2n));
  expect(divide(rational(1n, 2n), rational(-1n, 4n))).toEqual(rational(-2n, 1n));
  expect(() => divide(rational(1n, 2n), rational(0n, 1n))).toThrow(RangeError);
});

it.each([
  ['93.00', 1, '93.0'],
  ['93.00', 0, '93'],
  ['89.45', 1, '89.45'],
  ['3', 2, '3.00'],
])('%s with at least %i digits is %s', (text, digits, expected) => {
  expect(formatAtLeast(decimalOrThrow(text), digits)).toBe(expected);
});
