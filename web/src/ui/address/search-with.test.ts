import { expect, it } from 'vitest';
import { searchWith } from './search-with';

it('an address keeps what it asked for beside what is set anew or taken out', () => {
  const before = new URLSearchParams('view=codes&code=INC&sort=-gpa');
  expect(searchWith(before, { code: 'EXM', sort: null, show: 'blanks', text: '' }).toString()).toBe(
    'view=codes&code=EXM&show=blanks',
  );
  expect(before.toString()).toBe('view=codes&code=INC&sort=-gpa');
});
