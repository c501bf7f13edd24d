import { describe, expect, it } from 'vitest';
import { rowOutcomes } from '#core/files';
import { outcomeWords, proposalWords, reasonWords } from './words';

describe('what happens to a row', () => {
  it('has its own words for each outcome', () => {
    const names = rowOutcomes.map((outcome) => outcomeWords[outcome].name);
    expect(new Set(names).size).toBe(rowOutcomes.length);
  });

  it.each(rowOutcomes)('%s: a row that is left out says why, one that is written or the same does not', (outcome) => {
    const isSilent = ['new', 'changed', 'same'].includes(outcome);
    expect(reasonWords({ outcome, value: '860', sameAs: [22], givenSection: 'TE 3' })).toMatch(
      isSilent ? /^$/ : /^[A-Z“\d].*\.$/,
    );
  });

  it('quotes the value, and names the other row', () => {
    const plain = { sameAs: [], givenSection: null };
    expect(reasonWords({ outcome: 'unreadable', value: 'abc', ...plain })).toBe(
      '“abc” is not a percentage such as 86.4.',
    );
    expect(reasonWords({ outcome: 'twice', value: '80', ...plain, sameAs: [22, 30] })).toBe(
      'The same student is in row 22 and 30; neither is used.',
    );
  });
});

it.each([
  [{ code: 'earlier', fileName: 'q1.csv' } as const, 'as in q1.csv, which has the same columns'],
  [{ code: 'ids-known', known: 22, rows: 23 } as const, '22 of 23 are students we know'],
  [
    { code: 'name-and-percents', word: 'final', percents: 19, rows: 23 } as const,
    'headed “final”, percentages in 19 of 23 rows',
  ],
  [{ code: 'sections-known', known: 22, rows: 23 } as const, '22 of 23 name sections we know'],
  [{ code: 'named-as-item', percents: 19, rows: 23 } as const, 'headed like it, percentages in 19 of 23 rows'],
  [{ code: 'percents', percents: 19, rows: 23 } as const, 'percentages in 19 of 23 rows'],
])('a proposal gives its reason: %j', (reason, expected) => {
  expect(proposalWords({ column: 0, confidence: 90, reason })).toBe(expected);
});
