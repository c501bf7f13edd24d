import { newCode } from '#core/codes';
import { describe, expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal, roundHalfUp } from '#core/numbers';
import { letterBands } from '../../test/letter-scale.fixture.js';
import {
  enterLabelOrCode,
  enterPercent,
  isBlank,
  mostPercent,
  noMark,
  readPercent,
  takeComputed,
  type EntryRules,
  type Mark,
} from './index.js';

const code = (name: string, meaning: string, forbidsPercent = true) => newCode(name, meaning, { forbidsPercent });
const rules: EntryRules = {
  bands: letterBands,
  precision: { digits: 1, rounding: roundHalfUp },
  highestLevel: null,
  highestPercent: mostPercent,
  codes: [code('INC', 'Incomplete'), code('EXM', 'Exempt'), code('NA', 'Never attended'), code('P', 'Pass', false)],
};
const posted: Mark = { ...noMark, percent: decimalOrThrow('86.4'), label: 'B', comment: 'Exact in the field book.' };
const show = (entered: ReturnType<typeof enterPercent>) =>
  entered.kind === 'fault'
    ? entered.code
    : [entered.mark.percent && formatDecimal(entered.mark.percent), entered.mark.label, entered.mark.code];

describe('entering a percent', () => {
  it.each([
    ['fills the label', noMark, '86.4', ['86.4', 'B', null]],
    ['rounds only to find the label', noMark, '89.96', ['89.96', 'A-', null]],
    ['puts a code away', { ...noMark, code: 'INC' }, '70', ['70', 'C-', null]],
    ['left empty takes its label with it', posted, '', [null, null, null]],
    ['left empty leaves a label that stood alone', { ...noMark, label: 'B' }, '', [null, 'B', null]],
  ] as const)('%s', (_what, mark, text, expected) => expect(show(enterPercent(mark, text, rules))).toEqual(expected));
});

describe('entering a label or a code', () => {
  it.each([
    ['a label in any case leaves the percent', posted, 'b+', ['86.4', 'B+', null]],
    ['a code empties the percent', posted, 'inc', [null, null, 'INC']],
    ['the first letters of one code are enough', posted, 'ex', [null, null, 'EXM']],
    ['the first letters of a meaning are enough', posted, 'never', [null, null, 'NA']],
    ['a code that allows a percent keeps it', posted, 'P', ['86.4', null, 'P']],
    ['emptied, both go', { ...noMark, code: 'INC' }, ' ', [null, null, null]],
    ['an unknown word is a fault', posted, 'Z', 'label-unknown'],
  ] as const)('%s', (_what, mark, text, expected) =>
    expect(show(enterLabelOrCode(mark, text, rules))).toEqual(expected),
  );
});

describe('reading a typed percent', () => {
  it.each([
    ['86.4', '86.4'],
    ['86,4 %', '86.4'],
    ['86.4000', '86.40'],
    ['0', '0'],
    ['200', '200'],
  ])('%j is read', (text, expected) => {
    const read = readPercent(text, rules);
    expect(read.kind === 'percent' && formatDecimal(read.percent)).toBe(expected);
  });

  it.each([
    ['abc', 'percent-unreadable'],
    ['-1', 'percent-negative'],
    ['1e9', 'percent-unreadable'],
    ['1000000000', 'percent-too-high'],
    ['200.01', 'percent-too-high'],
    ['86.405', 'percent-too-exact'],
    ['8\u00006', 'percent-unreadable'],
    ['1,000.5', 'percent-unreadable'],
  ])('%j is refused', (text, expected) => expect(readPercent(text, rules)).toEqual({ kind: 'fault', code: expected }));
});

describe('an item that caps at 100', () => {
  const capped = { ...rules, highestPercent: decimalOrThrow('100') };

  it.each([
    ['100', ['100', 'A+', null]],
    ['100,00', ['100.00', 'A+', null]],
    ['100.01', 'percent-too-high'],
    ['105', 'percent-too-high'],
  ])('%s', (text, expected) => expect(show(enterPercent(noMark, text, capped))).toEqual(expected));

  it.each([
    ['103.26', '100.0'],
    ['100', '100.0'],
    ['99.96', '100.0'],
    ['97.94', '97.9'],
  ])('takes a computed %s as %s', (computed, posted) => {
    const { percent, label } = takeComputed(noMark, decimalOrThrow(computed), capped);
    expect([formatDecimal(percent!), label]).toEqual([posted, 'A+']);
  });
});

it('an item whose scale has levels goes by the one at its top, typed and computed', () => {
  const levels = { ...rules, highestLevel: decimalOrThrow('4') };
  expect(show(enterPercent(noMark, '4.1', levels))).toBe('level-too-high');
  expect(formatDecimal(takeComputed(noMark, decimalOrThrow('4.2'), levels).percent!)).toBe('4.0');
});

it('taking what is computed rounds once: 89.445 posts 89.4, never by way of 89.45 to 89.5', () => {
  const bands = letterBands.map((band) => (band.label === 'A-' ? { ...band, lowest: decimalOrThrow('89.5') } : band));
  const taken = takeComputed(noMark, decimalOrThrow('89.445'), { ...rules, bands });
  expect([formatDecimal(taken.percent!), taken.label]).toEqual(['89.4', 'B+']);
});

it('a comment or a date alone is no grade', () => {
  expect(isBlank({ ...noMark, comment: 'Well begun.' })).toBe(true);
  expect(isBlank(posted)).toBe(false);
});
