import { expect, it } from 'vitest';
import { decimalOrThrow } from '#core/numbers';
import { checkCodes, newCode } from './index.js';

const found = (...codes: ReturnType<typeof newCode>[]) =>
  checkCodes(codes, ['A', 'F', 'P']).map(({ code, index }) => [code, index]);
const incomplete = newCode('INC', 'Incomplete', { asPart: 'blocks' });

it.each<[string, ReturnType<typeof newCode>[], unknown[]]>([
  ['nothing in a list that holds together', [incomplete, newCode('NC', 'No credit', { triesCredit: true })], []],
  ['an empty code', [newCode(' ', 'Nothing')], [['code-empty', 0]]],
  ['a code twice, in any case', [incomplete, newCode('inc', 'Again')], [['code-twice', 1]]],
  ['a code that reads like a label', [newCode('p', 'Pass')], [['code-is-label', 0]]],
  [
    'counts as a percent that nobody states',
    [newCode('NVA', 'Never attended', { asPart: 'counts' })],
    [['percent-to-count-missing', 0]],
  ],
  [
    'a percent that nothing counts',
    [newCode('EXM', 'Exempt', { countsAs: decimalOrThrow('0') })],
    [['percent-to-count-missing', 0]],
  ],
  ['lapses without saying when', [newCode('INC', 'Incomplete', { lapsesInto: 'F' })], [['lapse-incomplete', 0]]],
  [
    'lapses into what nobody knows',
    [newCode('INC', 'Incomplete', { lapsesInto: 'Z', lapsesAfterDays: 30 })],
    [['lapse-unknown', 0]],
  ],
  [
    'lapses into itself',
    [newCode('INC', 'Incomplete', { lapsesInto: 'INC', lapsesAfterDays: 30 })],
    [['lapse-unknown', 0]],
  ],
  [
    'wants the first day but no date',
    [newCode('NVA', 'Never attended', { needsFirstDay: true })],
    [['first-day-without-date', 0]],
  ],
  ['earns credit that was never tried', [newCode('PAS', 'Pass', { earnsCredit: true })], [['earns-untried', 0]]],
])('finds %s', (_what, codes, expected) => expect(found(...codes)).toEqual(expected));

it('lets a code lapse into a label or another code', () => {
  const lapsing = newCode('ICF', 'Incomplete', { lapsesInto: 'f', lapsesAfterDays: 30 });
  expect(
    found(lapsing, newCode('INC', 'Incomplete', { lapsesInto: 'NC', lapsesAfterDays: 9 }), newCode('NC', 'No credit')),
  ).toEqual([]);
});
