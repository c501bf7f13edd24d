import { describe, expect, it } from 'vitest';
import { usualView, withViewChange, type ColumnLayout } from './own-view.js';
import { listedName, nameAs, partsOfName } from './person-name.js';

const layout: ColumnLayout = { hidden: ['email'], order: [], widths: {} };

describe('how somebody likes what they see', () => {
  it('changes in what is named and in nothing else', () => {
    const dark = withViewChange(usualView, { theme: 'dark' });
    expect(dark).toEqual({ ...usualView, theme: 'dark' });
    expect(withViewChange(dark, { firstWeekday: 0 })).toEqual({ ...dark, firstWeekday: 0 });
  });

  it('keeps the columns of each grid apart, and forgets those of one that goes back to what it had', () => {
    const one = withViewChange(usualView, { columns: { '/people all': layout } });
    const two = withViewChange(one, { columns: { '/log all': { ...layout, hidden: [] } } });
    expect(Object.keys(two.columns)).toEqual(['/people all', '/log all']);
    expect(withViewChange(two, { columns: { '/people all': null } }).columns).toEqual({
      '/log all': { ...layout, hidden: [] },
    });
  });
});

describe('a name', () => {
  it.each([
    ['Carrow, Hale “Hal”', 'family', 'both', 'Carrow, Hale “Hal”'],
    ['Carrow, Hale “Hal”', 'family', 'legal', 'Carrow, Hale'],
    ['Carrow, Hale “Hal”', 'family', 'preferred', 'Carrow, Hal'],
    ['Carrow, Hale “Hal”', 'given', 'both', 'Hale “Hal” Carrow'],
    ['Carrow, Hale “Hal”', 'given', 'legal', 'Hale Carrow'],
    ['Carrow, Hale “Hal”', 'given', 'preferred', 'Hal Carrow'],
    ['Carrow, Hale', 'given', 'preferred', 'Hale Carrow'],
    // Of two commas the first one parts: family names have none.
    ['Carrow, Hale, Jr.', 'given', 'both', 'Hale, Jr. Carrow'],
    // A lone name is what it is.
    ['Carrow', 'given', 'both', 'Carrow'],
    ['', 'given', 'legal', ''],
    // A quotation mark that does not close is a part of the name.
    ['Carrow, Hale “Hal', 'family', 'legal', 'Carrow, Hale “Hal'],
  ] as const)('%s, %s name first, %s: %s', (listed, order, names, expected) =>
    expect(nameAs(listed, { order, names })).toBe(expected),
  );

  it('is the same after it was taken apart, whatever the letters', () => {
    for (const parts of [
      { family: 'Ní Bhriain', given: 'Áine Máire', preferred: 'Annie' },
      { family: 'van der Wal', given: 'Jo', preferred: null },
      { family: 'O’Shea', given: '“Jo”', preferred: null },
    ]) {
      const listed = listedName(parts);
      expect(listedName(partsOfName(listed))).toBe(listed);
    }
  });
});
