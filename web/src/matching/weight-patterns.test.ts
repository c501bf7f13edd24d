import { describe, expect, it } from 'vitest';
import type { ClassWeightsReply } from '#contract/matching';
import { weightPatterns } from './weight-patterns';

const weighed = (classId: number, state: ClassWeightsReply['state'], theirs: string, from = 'the school') => ({
  classId,
  title: `Class ${classId}`,
  sectionId: classId,
  section: `Section ${classId}`,
  state,
  from,
  rows: [{ categoryId: 1, theirs, ours: '60', groups: 1 }],
  theirSum: theirs,
});

describe('weightPatterns', () => {
  it('puts classes together that are weighted alike on both sides, what differs first and most of it before', () => {
    const patterns = weightPatterns([
      weighed(1, 'same', '60'),
      weighed(2, 'differ', '70'),
      weighed(3, 'differ', '80'),
      weighed(4, 'differ', '80'),
      weighed(5, 'differ', '80', 'this section'),
    ]);
    expect(patterns.map(({ state, classes }) => [state, classes.map(({ classId }) => classId)])).toEqual([
      ['differ', [3, 4]],
      ['differ', [2]],
      ['differ', [5]],
      ['same', [1]],
    ]);
  });
});
