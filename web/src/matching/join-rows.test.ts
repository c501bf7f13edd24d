import { describe, expect, it } from 'vitest';
import type { NameMatchReply } from '#contract/matching';
import { decisionsAbove, rowsOfClass, rowsOverAll, sayRow } from './join-rows';

const place = (id: number, decision: 'open' | 'joined' | 'ignored' = 'open', target: string | null = null) => ({
  id,
  classId: id * 10,
  weight: 10,
  decision,
  target,
});
const sure = { key: '11', confidence: 92, reasons: [{ kind: 'abbreviation' }] } as const;
const doubtful = { key: '13', confidence: 55, reasons: [{ kind: 'onlyWeight', weight: 40 }] } as const;
const name = (title: string, over: Partial<NameMatchReply>): NameMatchReply => ({
  key: `group|${title}`,
  kind: 'group',
  name: title,
  places: [],
  state: 'proposed',
  target: null,
  best: null,
  between: [],
  ...over,
});
const names = [
  name('HW', { places: [place(1), place(2, 'joined', '11')], best: sure }),
  name('Exams', { places: [place(3)], best: doubtful }),
  name('Tests', { places: [place(4, 'joined', '13')], state: 'joined', target: '13' }),
  name('Odds', { places: [place(5)], state: 'unmatched' }),
  name('Quizzes & Tests', {
    places: [place(6)],
    state: 'conflicting',
    between: [{ ...doubtful, key: '12' }, doubtful],
  }),
];

describe('the board of names', () => {
  it('puts what needs a decision first and the doubtful before the sure', () => {
    expect(rowsOverAll(names, 'group').map((row) => row.name)).toEqual([
      'Quizzes & Tests',
      'Odds',
      'Exams',
      'HW',
      'Tests',
    ]);
  });

  it('of one class shows what is decided there', () => {
    expect(rowsOfClass(names, 'group', 20)).toMatchObject([{ name: 'HW', state: 'joined', target: '11', ids: [2] }]);
    expect(rowsOfClass(names, 'group', 10)).toMatchObject([{ name: 'HW', state: 'proposed', openIds: [1] }]);
  });

  it('takes the proposals above a line together, and of those only what is open', () => {
    expect(decisionsAbove(90, names)).toEqual([{ kind: 'group', ids: [1], decision: 'joined', target: '11' }]);
  });

  it('says what a conflict is between', () => {
    const [first] = rowsOverAll(names, 'group');
    expect(sayRow(first!, (key) => (key === '12' ? 'Quizzes' : 'Tests'))).toBe('Quizzes or Tests?');
  });
});
