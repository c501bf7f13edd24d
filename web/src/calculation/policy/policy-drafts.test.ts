import { describe, expect, it } from 'vitest';
import type { BookSummaryReply, PolicyReply } from '#contract/calculation';
import { book, policy } from '../../../test/book.fixture';
import { draftKey, inheritedBy, isReadable, mattersOf, percentFault, placeName, policyViews } from './policy-drafts';
import { policyFacts } from './policy-facts';

const place = (department: string | null, sectionId: number | null, periodId: number | null) => ({
  department,
  sectionId,
  periodId,
});
const saved = (id: number, where: ReturnType<typeof place>, cap: string | null): PolicyReply => ({
  ...where,
  id,
  revision: 'r1',
  section: null,
  period: null,
  policy: { ...book.policy, cap },
});
const policies = [saved(1, place(null, null, null), null), saved(2, place('Sea', null, null), '100')];
const books = [{ sectionId: 7, section: 'Knots 1', department: 'Sea' } as BookSummaryReply];

describe('the places of policies', () => {
  it('are listed the widest first, a new one that is not saved yet among them', () => {
    const own = place(null, 7, 4);
    const drafts = {
      [draftKey(1, own)]: { basedOn: '', now: { place: own, policy: book.policy }, undo: [null] },
      [draftKey(2, own)]: { basedOn: '', now: { place: own, policy: book.policy }, undo: [null] },
    };
    const views = policyViews(1, policies, drafts);
    expect(views.map((view) => placeName(view.place, { books }, [{ id: 4, name: 'Quarter 2' }]))).toEqual([
      'The school',
      'Sea',
      'Knots 1, in Quarter 2',
    ]);
    expect(views.map(({ isDraft, saved: own }) => [isDraft, own?.id])).toEqual([
      [false, 1],
      [false, 2],
      [true, undefined],
    ]);
  });

  it('begin as what they inherit', () => {
    expect(inheritedBy(place(null, 7, null), { policies, books }, 4)?.cap).toBe('100');
    expect(inheritedBy(place('Letters', null, null), { policies, books }, 4)?.cap).toBeNull();
    expect(inheritedBy(place(null, null, 4), { policies, books }, 4)?.cap).toBeNull();
    expect(inheritedBy(place(null, null, null), { policies: [], books }, 4)).toBeUndefined();
  });
});

describe('a drafted policy', () => {
  it.each(['', '-1', '12.345', 'ten', '1000'])('cannot be read with “%s” for a number', (text) => {
    expect(percentFault(text)).toBeDefined();
    expect(isReadable({ ...book.policy, cap: text })).toBe(false);
  });

  it('says what is to be known of it once it can be read', () => {
    const { categories } = book.policy;
    const draft = { ...book.policy, categories: [categories[0]!, { ...categories[1]!, weight: '30' }] };
    expect(mattersOf(draft, book.categories).map(({ says }) => says)).toEqual([
      'Projects has no weight, so its scores do not count.',
      'The weights add up to 90, not 100; each counts as its share of 90.',
    ]);
    expect(mattersOf({ ...draft, cap: 'x' }, book.categories)).toEqual([]);
  });

  it('says everything it says in words that can stand beside another’s', () => {
    const dropping = { ...policy.categories[0]!, dropLowest: 2, cap: '90', weight: '60' };
    const facts = policyFacts({ ...book.policy, categories: [dropping] }, book.categories);
    expect(facts.slice(0, 4)).toEqual([
      { name: 'Method', says: 'weighted by category, by points within each' },
      { name: 'Tests', says: 'not in it' },
      { name: 'Work', says: '60, drops 2, at most 90 %' },
      { name: 'Projects', says: 'not in it' },
    ]);
  });
});
