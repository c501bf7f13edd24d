import { describe, expect, it } from 'vitest';
import { sayClass, sayPerson, sayReasons, saySectionReasons, sayWeights } from './words';

describe('a proposal in words', () => {
  it('tells every reason', () => {
    expect(
      sayReasons([
        { kind: 'abbreviation' },
        { kind: 'earlier', times: 6 },
        { kind: 'otherWeight', theirs: 15, ours: 10 },
      ]),
    ).toBe('a usual short form; chosen 6 times before; weighs 15 %, ours 10 %');
    expect(sayReasons([{ kind: 'spelling', similarity: 0.9708 }])).toBe('spelt 97 % alike');
  });

  it('tells who is in both', () => {
    expect(saySectionReasons([{ kind: 'students', common: 18, of: 22 }, { kind: 'title' }])).toBe(
      '18 of 22 students in both; same title',
    );
    expect(saySectionReasons([{ kind: 'students', common: 20, of: 20 }])).toBe('the same 20 students');
  });

  it('names the class that claims the same section', () => {
    const row = { id: 1, title: 'A', code: null, term: '', students: 3, sectionId: 4, best: null, between: [] };
    expect(sayClass({ ...row, state: 'conflicting', claimedBy: ['A', 'A copy'] })).toBe('also claimed by A copy');
  });

  it('says what speaks against taking somebody unasked', () => {
    expect(sayPerson({ state: 'conflicting', personIds: [1, 2], by: 'twoIds' })).toBe(
      'the number says one, the address another',
    );
  });

  it.each([
    [[null, null], '–'],
    [[30, null, 30], '30 %'],
    [[35, 45, 40], '35–45 %'],
  ])('of weights %j is %s', (weights, words) => {
    expect(sayWeights(weights)).toBe(words);
  });
});
