import { describe, expect, it } from 'vitest';
import { sortingOfText, textOfSorting } from './use-sorting';

describe('the order of a grid in the address', () => {
  it.each([
    ['student', [{ id: 'student', desc: false }]],
    ['-gpa', [{ id: 'gpa', desc: true }]],
    ['size', []],
    ['', []],
    [null, []],
  ])('%j is read as %j', (text, sorting) => {
    expect(sortingOfText(text, ['student', 'gpa'])).toEqual(sorting);
    expect(textOfSorting(sorting)).toBe(sorting.length > 0 ? text : null);
  });
});
