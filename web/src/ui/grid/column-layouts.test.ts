import { describe, expect, it, vi } from 'vitest';

vi.stubGlobal('window', {
  localStorage: { getItem: () => null, setItem: () => undefined, removeItem: () => undefined },
});
const { arranged, kindOfAddress, movedOrder } = await import('./column-layouts');

const columns = ['name', 'year', 'gpa', 'blanks'].map((id) => ({ id }));
const ids = (hidden: string[], order: string[]) => arranged(columns, { hidden, order, widths: {} }).map(({ id }) => id);

describe('columns as somebody likes them', () => {
  it.each([
    ['nothing said', [], [], ['name', 'year', 'gpa', 'blanks']],
    ['one hidden', ['gpa'], [], ['name', 'year', 'blanks']],
    ['in another order', [], ['blanks', 'year', 'gpa'], ['name', 'blanks', 'year', 'gpa']],
    ['a column that came since stands last', [], ['gpa', 'year'], ['name', 'gpa', 'year', 'blanks']],
    ['the first stays first and shown', ['name'], ['blanks', 'name'], ['name', 'blanks', 'year', 'gpa']],
    ['a column that is gone', ['old'], ['old', 'gpa'], ['name', 'gpa', 'year', 'blanks']],
  ])('%s', (_, hidden, order, shown) => {
    expect(ids(hidden, order)).toEqual(shown);
  });

  it.each([
    ['b', -1, ['b', 'a', 'c']],
    ['b', 1, ['a', 'c', 'b']],
    ['a', -1, ['a', 'b', 'c']],
    ['c', 1, ['a', 'b', 'c']],
  ] as const)('%s moves by %i', (id, by, order) => {
    expect(movedOrder(['a', 'b', 'c'], id, by)).toEqual(order);
  });

  it('are shared by all addresses of a kind', () => {
    expect(kindOfAddress('/school/2/period/14/runs/77')).toBe('/runs/·');
    expect(kindOfAddress('/school/1/period/4/runs/8')).toBe('/runs/·');
  });
});
