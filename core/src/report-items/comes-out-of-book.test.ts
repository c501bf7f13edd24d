import { expect, it } from 'vitest';
import { comesOutOfBook, type BookItem } from './comes-out-of-book.js';

const item: BookItem = { id: 1, source: 'gradeBook', kind: 'period', categoryId: null, periodKind: 'quarter' };

it.each([
  ['an item of the book, in its own periods', {}, 'quarter', true],
  ['in other periods', {}, 'semester', false],
  ['one that is posted by hand', { source: 'hand' }, 'quarter', false],
  ['a composite', { source: 'composite' }, 'quarter', false],
  ['an exam, of which the whole book says nothing', { kind: 'exam' }, 'quarter', false],
  ['an exam that names its category', { kind: 'exam', categoryId: 3 }, 'quarter', true],
  ['conduct', { kind: 'conduct' }, 'quarter', false],
  ['conduct that names its category', { kind: 'conduct', categoryId: 3 }, 'quarter', true],
  ['a standard of the book', { kind: 'standard', categoryId: 3 }, 'quarter', true],
] as const)('%s', (_what, changed, kind, comes) => {
  expect(comesOutOfBook({ ...item, ...changed }, { kind })).toBe(comes);
});
