import { expect, it } from 'vitest';
import { endOf } from './middle-cut';

it.each([
  ['Chart and Compass Mathematics (3)', ['Chart and Compass Mathematics', ' (3)']],
  ['Islands Compared, honours 2', ['Islands Compared,', ' honours 2']],
  ['Making, year 1 · section 12', ['Making, year 1 ·', ' section 12']],
  ['Knots 1', ['Knots 1', '']],
  ['Unbrokenlongname-of-a-file.csv', ['Unbrokenlongname-of-a-fi', 'le.csv']],
  ['', ['', '']],
])('the end of %s that stays in sight', (text, parts) => {
  expect(endOf(text)).toEqual(parts);
  expect(endOf(text).join('')).toBe(text);
});
