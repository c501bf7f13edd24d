import fc from 'fast-check';
import { Decimal as Oracle } from 'decimal.js';
import { describe, expect, it, test } from 'vitest';
import {
  decimalOrThrow,
  formatDecimal,
  fromDecimal,
  rational,
  roundDown,
  roundHalfEven,
  roundHalfUp,
  roundSticky,
  roundTo,
} from './index.js';
import type { Rounding } from './index.js';

const fraction = fc.record({
  numerator: fc.bigInt({ min: -(10n ** 12n), max: 10n ** 12n }),
  denominator: fc.oneof(fc.constantFrom(2n, 4n, 20n, 200n), fc.bigInt({ min: 1n, max: 10n ** 6n })),
});

/** What each rounding must choose, stated on exact fractions: which whole number is nearest, and where halves go. */
const definitions: [string, Rounding, (numerator: bigint, denominator: bigint, result: bigint) => boolean][] = [
  ['half up', roundHalfUp, (n, d, r) => 2n * n - 2n * r * d < d && 2n * n - 2n * r * d >= -d],
  [
    'half even',
    roundHalfEven,
    (n, d, r) => {
      const twice = 2n * (n - r * d);
      return twice === d || twice === -d ? r % 2n === 0n : twice < d && twice > -d;
    },
  ],
  [
    'down',
    roundDown,
    (n, d, r) => {
      const rest = n - r * d;
      return n >= 0n ? rest >= 0n && rest < d : rest <= 0n && rest > -d;
    },
  ],
];

describe('each rounding chooses what its definition says, over a million fractions in all', () => {
  test.each(definitions)('%s', (_name, rounding, holds) => {
    fc.assert(
      fc.property(fraction, ({ numerator, denominator }) =>
        holds(numerator, denominator, rounding(rational(numerator, denominator))),
      ),
      { numRuns: 340_000, seed: 20_260_121 },
    );
  });
});

describe('rounding agrees with decimal.js, a general decimal library', () => {
  test.each([
    ['half up', roundHalfUp, Oracle.ROUND_HALF_CEIL],
    ['half even', roundHalfEven, Oracle.ROUND_HALF_EVEN],
    ['down', roundDown, Oracle.ROUND_DOWN],
  ] as const)('%s', (_name, rounding, mode) => {
    const cases = fc.tuple(fc.integer({ min: -20_000_000, max: 20_000_000 }), fc.integer({ min: 0, max: 3 }));
    fc.assert(
      fc.property(cases, ([units, digits]) => {
        const text = formatDecimal({ units: BigInt(units), digits: 5 });
        const ours = formatDecimal(roundTo(fromDecimal(decimalOrThrow(text)), digits, rounding));
        return new Oracle(ours).equals(new Oracle(text).toDecimalPlaces(digits, mode));
      }),
      { numRuns: 20_000, seed: 20_260_121 },
    );
  });
});

describe('values that binary fractions put on the wrong side', () => {
  it.each([
    ['1.005', 2, '1.01', 1],
    ['10.235', 2, '10.24', 10.23],
    ['1.45', 1, '1.5', 1.4],
  ])('%s to %i digits half up is %s', (text, digits, expected, binary) => {
    expect(formatDecimal(roundTo(fromDecimal(decimalOrThrow(text)), digits, roundHalfUp))).toBe(expected);
    expect(Number(Number(text).toFixed(digits))).toBe(binary);
  });
});

test('what was rounded stickily first comes out of any later rounding as if it had been rounded once', () => {
  const positive = fraction.map(({ numerator, denominator }) => ({
    numerator: numerator < 0n ? -numerator : numerator,
    denominator,
  }));
  fc.assert(
    fc.property(positive, fc.integer({ min: 0, max: 2 }), (value, digits) => {
      const kept = fromDecimal(roundTo(value, 3, roundSticky));
      for (const [, rounding] of definitions) {
        expect(roundTo(kept, digits, rounding)).toEqual(roundTo(value, digits, rounding));
      }
    }),
    { seed: 12 },
  );
});
