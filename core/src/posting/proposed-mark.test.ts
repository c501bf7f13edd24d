import { expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal, roundHalfUp } from '#core/numbers';
import { letterBands } from '../../test/letter-scale.fixture.js';
import { mostPercent, noMark, proposedMark, type ComputedBeside, type EntryRules, type Mark } from './index.js';

const rules: EntryRules = {
  bands: letterBands,
  precision: { digits: 1, rounding: roundHalfUp },
  highestLevel: null,
  highestPercent: mostPercent,
  codes: [],
};
const posted: Mark = {
  ...noMark,
  percent: decimalOrThrow('70'),
  label: 'C-',
  comment: 'Exact in the field book.',
  overrideReason: 'Agreed',
};
const beside = (own: Partial<ComputedBeside>): ComputedBeside => ({ computed: null, composite: null, ...own });

it.each([
  ['a percent of the book, with its label', beside({ computed: { percent: '86.4' } }), ['86.4', 'B', null]],
  [
    'a percent of the parts, with its label',
    beside({ composite: { kind: 'value', percent: '86.4', label: null } }),
    ['86.4', 'B', null],
  ],
  [
    'the book before the parts',
    beside({ computed: { percent: '86.4' }, composite: { kind: 'value', percent: '50', label: null } }),
    ['86.4', 'B', null],
  ],
  [
    'the label alone, where parts count by points',
    beside({ composite: { kind: 'value', percent: null, label: 'B+' } }),
    [null, 'B+', null],
  ],
  ['the code of a part that blocks it', beside({ composite: { kind: 'blocked', code: 'INC' } }), [null, null, 'INC']],
])('proposes %s', (_what, computed, expected) => {
  const proposed = proposedMark(computed, posted, rules)!;
  expect([proposed.percent && formatDecimal(proposed.percent), proposed.label, proposed.code]).toEqual(expected);
  expect([proposed.comment, proposed.overrideReason]).toEqual(['Exact in the field book.', '']);
});

it.each([
  ['nothing is computed', beside({})],
  ['a part is missing', beside({ composite: { kind: 'missing' } })],
  ['all parts are exempt', beside({ composite: { kind: 'exempt' } })],
])('proposes nothing where %s', (_what, computed) => {
  expect(proposedMark(computed, posted, rules)).toBeNull();
});
