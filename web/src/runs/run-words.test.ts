import { describe, expect, it } from 'vitest';
import { runReasons } from '#core/runs';
import { reasonWords } from '#contract/runs';
import { mends, sayAge, sayReason, sayStanding, showChange } from './run-words';

describe('the words of a run', () => {
  it('say each reason in a sentence with what it is about', () => {
    expect(sayReason({ code: 'score-above', about: '21|20' })).toBe('21 is more than the 20 it is out of.');
    expect(sayReason({ code: 'name-too-long', about: '92' })).toBe('Its name has 92 characters; 80 fit.');
    expect(sayReason({ code: 'other-term', about: 'Knots 1|Quarter 2' })).toBe(
      'Knots 1 does not run through Quarter 2.',
    );
  });

  it('lead somewhere in Wombat from each reason that can be mended here', () => {
    const mended = Object.keys(mends);
    expect(mended).toEqual(
      expect.arrayContaining(['class-open', 'group-open', 'person-open', 'total-open', 'letter-open', 'no-scale']),
    );
    expect(Object.keys(reasonWords).toSorted()).toEqual(Object.keys(runReasons).toSorted());
  });

  const facts = { name: 'Essay', possible: '20', dueOn: '2026-01-09' as never, categoryId: 7, givenTo: null };
  it('say of a changed assignment only what changed', () => {
    const row = { before: facts, after: { ...facts, possible: '25', categoryId: 8 } } as never;
    expect(showChange(row, new Map([[7, 'Homework'], [8, 'Tests']]))).toBe('20 → 25 p., Homework → Tests'); // prettier-ignore
  });

  it.each([
    [1, 'just now'],
    [119, '119 minutes ago'],
    [120, '2 hours ago'],
    [60 * 24 * 3, '3 days ago'],
  ])('call %i minutes "%s"', (minutes, words) => {
    expect(sayAge(minutes)).toBe(words);
  });

  it('say how a run stands', () => {
    const run = { stage: 'carry', state: 'working', done: 3, total: 24 } as never;
    expect(sayStanding(run)).toBe('carrying over, class 4 of 24');
    expect(sayStanding({ stage: 'plan', state: 'ready' } as never)).toBe('planned, waits');
  });
});
