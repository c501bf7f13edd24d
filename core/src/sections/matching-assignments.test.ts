import { expect, it } from 'vitest';
import { matchingAssignments } from './index.js';

const of = (id: number, name: string, points = '20', periodId = 4) => ({ id, name, points, periodId });
const matched = (ours: ReturnType<typeof of>[], theirs: ReturnType<typeof of>[]) => {
  const { pairs, without } = matchingAssignments(ours, theirs);
  return [pairs, without.map(({ id }) => id)];
};

it.each([
  ['the same name and points', [of(1, 'Splice')], [of(9, 'splice ', '20.00')], [[[1, 9]], []]],
  ['the same name out of other points', [of(1, 'Splice')], [of(9, 'Splice', '25')], [[], [1]]],
  ['the same name in another period', [of(1, 'Splice')], [of(9, 'Splice', '20', 5)], [[], [1]]],
  ['one that the other section does not have', [of(1, 'Splice'), of(2, 'Rope')], [of(9, 'Rope')], [[[2, 9]], [1]]],
  ['two of one name there', [of(1, 'Quiz')], [of(8, 'Quiz'), of(9, 'Quiz')], [[], [1]]],
  ['two of one name here', [of(1, 'Quiz'), of(2, 'Quiz')], [of(9, 'Quiz')], [[], [1, 2]]],
  ['nothing', [], [of(9, 'Quiz')], [[], []]],
])('assignments of two sections: %s', (_what, ours, theirs, expected) => {
  expect(matched(ours, theirs)).toEqual(expected);
});
