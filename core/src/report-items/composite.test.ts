import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decimalOrThrow, divide, formatDecimal, fromDecimal, roundHalfUp, roundTo, type Rational } from '#core/numbers';
import { newCode } from '#core/codes';
import { noMark, type Mark } from '#core/posting';
import { letterBands } from '../../test/letter-scale.fixture.js';
import { compositeOf, partState, type PartUnit, type WeighedPart } from './index.js';

const codes = new Map(
  [
    newCode('EXM', 'Exempt', { asPart: 'leaves' }),
    newCode('INC', 'Incomplete', { asPart: 'blocks' }),
    newCode('NVA', 'Never attended', { asPart: 'counts', countsAs: decimalOrThrow('0') }),
    newCode('PRG', 'In progress'),
  ].map((code) => [code.code, code]),
);
const percent = (text: string, label: string | null = null): Mark => ({
  ...noMark,
  percent: decimalOrThrow(text),
  label,
});
const code = (name: string): Mark => ({ ...noMark, code: name });

/** Two quarters and an exam at 40 / 40 / 20, as many schools count a semester: common practice. */
function semester(first: Mark, second: Mark, exam: Mark, unit: PartUnit = 'percent') {
  const part = (name: string, weight: string, mark: Mark): WeighedPart => ({
    name,
    weight: decimalOrThrow(weight),
    state: partState(mark, unit, letterBands, codes),
  });
  return compositeOf([part('Quarter 1', '40', first), part('Quarter 2', '40', second), part('Exam', '20', exam)]);
}
const shown = (value: Rational, digits = 2) => formatDecimal(roundTo(value, digits, roundHalfUp));

describe('a semester of two quarters and an exam at 40 / 40 / 20', () => {
  it.each([
    ['all three', percent('80'), percent('90'), percent('70'), '82.00'],
    ['exempt from the exam: the quarters count 50 and 50', percent('80'), percent('90'), code('EXM'), '85.00'],
    ['exempt from a quarter: two thirds and one third', code('EXM'), percent('90'), percent('70'), '83.33'],
    ['never attended the exam: it counts as 0', percent('80'), percent('90'), code('NVA'), '68.00'],
    [
      'a value on the rounding half stays exact: 0.4 × (86.45 + 91.3) + 0.2 × 78.75',
      percent('86.45'),
      percent('91.3'),
      percent('78.75'),
      '86.85',
    ],
  ])('%s', (_what, first, second, exam, expected) => {
    const found = semester(first, second, exam);
    expect(found.kind === 'value' && shown(found.value)).toBe(expected);
  });

  it('tells the share of each part that counted', () => {
    const found = semester(percent('80'), percent('90'), code('EXM'));
    expect(found.kind === 'value' && found.parts.map(({ name, share }) => [name, shown(share, 0)])).toEqual([
      ['Quarter 1', '50'],
      ['Quarter 2', '50'],
    ]);
  });

  it.each([
    [
      'a missing part: no value, and it says which',
      percent('80'),
      noMark,
      noMark,
      { kind: 'missing', parts: ['Quarter 2', 'Exam'] },
    ],
    [
      'a code without effect is no grade yet',
      percent('80'),
      percent('90'),
      code('PRG'),
      { kind: 'missing', parts: ['Exam'] },
    ],
    [
      'an incomplete part: the composite is incomplete',
      percent('80'),
      code('INC'),
      percent('70'),
      { kind: 'blocked', code: 'INC', by: 'Quarter 2' },
    ],
    [
      'incomplete weighs more than missing',
      code('INC'),
      noMark,
      percent('70'),
      { kind: 'blocked', code: 'INC', by: 'Quarter 1' },
    ],
    ['exempt from everything', code('EXM'), code('EXM'), code('EXM'), { kind: 'exempt', code: 'EXM' }],
  ])('%s', (_what, first, second, exam, expected) => expect(semester(first, second, exam)).toEqual(expected));

  it('counts by the points of the posted labels where the item says so, overrides included', () => {
    // B 3.0, A 4.0 by override over a percent of 80, C 2.0: 0.4 × 3 + 0.4 × 4 + 0.2 × 2 = 3.2
    const found = semester(percent('84', 'B'), percent('80', 'A'), percent('74', 'C'), 'points');
    expect(found.kind === 'value' && shown(found.value)).toBe('3.20');
    expect(semester(percent('84', 'B'), percent('80', 'A'), code('NVA'), 'points')).toMatchObject({ kind: 'value' });
  });
});

it('a composite of equal values is that value, whatever the weights and whoever is exempt', () => {
  const weights = fc.array(fc.integer({ min: 1, max: 9999 }), { minLength: 1, maxLength: 6 });
  fc.assert(
    fc.property(weights, fc.integer({ min: 0, max: 10_000 }), fc.nat(), (units, value, left) => {
      const parts = units.map((weight, index): WeighedPart => ({
        name: String(index),
        weight: { units: BigInt(weight), digits: 2 },
        state:
          index > 0 && index === left % units.length
            ? { kind: 'left out', code: 'EXM' }
            : { kind: 'value', value: { units: BigInt(value), digits: 2 } },
      }));
      const found = compositeOf(parts);
      if (found.kind !== 'value') throw new Error(`no value: ${found.kind}`);
      expect(divide(found.value, fromDecimal({ units: 1n, digits: 0 }))).toEqual(
        divide(fromDecimal({ units: BigInt(value), digits: 2 }), fromDecimal({ units: 1n, digits: 0 })),
      );
    }),
    { seed: 20_260_121 },
  );
});
