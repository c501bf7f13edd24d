import { expect, it } from 'vitest';
import { auditRules } from '#core/audit';
import type { FoundReply } from '#contract/audit';
import { pages } from '../shell/pages';
import { placeOfFinding } from './finding-place';

const found = { openSectionId: 7, itemId: 3, enrollmentId: 90, mark: {} } as FoundReply;
const placeBy = (id: string, about: Partial<FoundReply> = {}) => {
  const { scope, settledIn = null } = auditRules.find((rule) => rule.id === id)!;
  return placeOfFinding({ scope, settledIn }, { ...found, ...about }).path;
};

it.each([
  ['percent-and-label-disagree', 'grade-sheets/7/3?student=90'],
  ['sheet-not-signed-off', 'grade-sheets/7/3'],
  ['book-not-calculated', 'grade-books/7'],
  ['enrolled-twice', 'enrollments?section=7'],
  ['course-without-credits', 'courses'],
  ['item-without-window', 'calendar'],
  // Where the cause lies elsewhere than what it shows on.
  ['unmatched-group', 'matches?view=group'],
  ['weights-not-hundred', 'calculation'],
  ['sections-weighted-differently', 'calculation'],
  ['section-without-scale', 'scales'],
])('what %s finds is opened at %s', (id, path) => expect(placeBy(id)).toBe(path));

it('a grade that no sheet expects is looked into where it is said what is posted', () => {
  expect(placeBy('percent-and-label-disagree', { mark: null })).toBe('report-items');
});

it('there is a page for what any rule finds', () => {
  const known = pages.map(({ path }) => new RegExp(`^${path.replaceAll(/:\w+/g, '[^/]+')}$`));
  const paths = auditRules.map(({ id }) => placeBy(id).split('?')[0]!);
  expect(paths.filter((path) => !known.some((page) => page.test(path)))).toEqual([]);
});
