import { expect, it } from 'vitest';
import { findRow } from './find-row';

const names = ['Abara, Amara', 'Ågren, Siv', 'Holm, Ida', 'Holt, Ben', 'Ueno, Mai'];

it.each([
  ['h', 0, 2],
  ['ho', 3, 3],
  ['holm', 3, 2],
  ['ag', 0, 1],
  ['a', 4, 0],
  ['x', 2, -1],
  ['u', -1, 4],
])('%j from row %i on is found in row %i', (typed, from, at) => {
  expect(findRow(names, typed, from)).toBe(at);
});

it('nothing is found in nothing', () => {
  expect(findRow([], 'a', 0)).toBe(-1);
});
