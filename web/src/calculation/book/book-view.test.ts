import { describe, expect, it } from 'vitest';
import { formatDecimal } from '#core/numbers';
import { book, policy } from '../../../test/book.fixture';
import { bookColumns } from './book-columns';
import { bookRows } from './book-view';
import { compareRows, effectSentence, optionEffects, spreadOf } from '../policy/option-effects';
import { overTheirs, readDrafts, textOfScore, withScores } from './score-drafts';

const percents = (rows: ReturnType<typeof bookRows>) => rows.map(({ rounded }) => rounded && formatDecimal(rounded));

describe('the rows of a grade book', () => {
  it('come to the percents of the policy, with labels, and say what is posted otherwise', () => {
    const rows = bookRows(book, policy);
    // (8 + 0) of 20 counts 60, 40 of 50 counts 40; then (9.5 + 9 + 2) of 20 and 45 of 50
    expect(percents(rows)).toEqual(['56.0', '97.5']);
    expect(rows.map(({ label, differs }) => [label, differs])).toEqual([
      ['F', true],
      ['P', true],
    ]);
    expect([...rows[0]!.scores.keys()]).toEqual([3, 1, 2]);
    expect(rows[1]!.scores.get(4)).toMatchObject({ treatment: 'extra', points: '2' });
  });

  it('follow what is typed before it is saved', () => {
    const rows = bookRows(book, policy, { '2/11': { points: '10', flag: null } });
    expect(percents(rows)).toEqual(['86.0', '97.5']);
  });

  it('stand under the categories in the order of the policy; those without a weight and assignments stay away', () => {
    const columns = bookColumns(book);
    expect(columns.map(({ category, weight }) => [category.name, weight])).toEqual([
      ['Work', '60'],
      ['Tests', '40'],
    ]);
    expect(columns[0]!.assignments.map(({ id }) => id)).toEqual([1, 2, 4]);
  });
});

describe('what a choice does in a section', () => {
  const effects = optionEffects(book, policy);

  it('a flag is held against the next other effect', () => {
    const { scores, other, effect } = effects.flag('missing');
    expect([scores, other, effectSentence(effect)]).toEqual([
      1,
      'leaves',
      'lowers 1 of 2 students, by 24.0 points on average',
    ]);
    expect(effectSentence(effects.flag('late').effect)).toBe('changes none of 2 students');
  });

  it('a drop is held against dropping none, and a limit against none', () => {
    const changed = {
      ...policy,
      cap: { units: 90n, digits: 0 },
      categories: policy.categories.map((share, at) => ({ ...share, dropLowest: 1 - at })),
    };
    const { drops, cap } = optionEffects(book, changed);
    expect(effectSentence(drops.get(1)!)).toBe('raises 1 of 2 students, by 24.0 points on average');
    expect(effectSentence(cap!)).toBe('lowers 1 of 2 students, by 15.0 points on average');
  });

  it('counts whom it leaves without a grade', () => {
    const blocking = { ...policy, flags: { ...policy.flags, missing: 'blocks' as const } };
    const effect = compareRows(bookRows(book, blocking), bookRows(book, policy));
    expect(effectSentence(effect)).toBe('leaves 1 without a grade of 2 students');
  });

  it('the spread of a section is its mean and its ends', () => {
    expect(spreadOf(bookRows(book, policy))).toEqual({ mean: '76.8', least: '56.0', most: '97.5' });
    expect(spreadOf(bookRows({ ...book, scores: [] }, policy))).toBeNull();
  });
});

describe('scores that are typed', () => {
  const type = (assignmentId: number, enrollmentId: number, text: string) => ({ assignmentId, enrollmentId, text });

  it('are written out in full, keep the version they were typed over, and go when they are as saved', () => {
    const drafts = withScores(book, {}, [
      type(1, 11, '7,5'),
      type(2, 11, 'm 3'),
      type(3, 11, 'l'),
      type(3, 12, '45.0'),
    ]);
    expect(drafts).toEqual({
      '1/11': { text: '7.5', version: 2 },
      '2/11': { text: 'm 3', version: 2 },
      '3/11': { text: 'late', version: 2 },
    });
    expect(withScores(book, drafts, [type(1, 11, '8'), type(2, 11, 'mis'), type(3, 11, '40')])).toEqual({});
  });

  it('are taken only for whom the assignment was given to', () => {
    expect(withScores(book, {}, [type(4, 11, '1'), type(99, 11, '1')])).toEqual({});
  });

  it('that cannot be read say why, and the others would be saved', () => {
    const drafts = withScores(book, {}, [type(1, 11, '11'), type(2, 11, 'ex'), type(1, 12, 'good')]);
    const { faults, changes, facts, stale } = readDrafts(book, drafts);
    expect([...faults]).toEqual([
      ['1/11', 'It is out of 10. Points beyond that belong in an assignment that is marked extra.'],
      ['1/12', 'Points such as 8.5, or the first letter of missing, late, incomplete, exempt, absent or collected.'],
    ]);
    expect(changes).toEqual([{ assignmentId: 2, enrollmentId: 11, version: 2, points: null, flag: 'exempt' }]);
    expect([facts, stale]).toEqual([{ '2/11': { points: null, flag: 'exempt' } }, []]);
  });

  it('over what somebody else saved are found, and can be laid over it', () => {
    const drafts = withScores(book, {}, [type(1, 11, '7')]);
    const saved = book.scores.map((score) =>
      score.assignmentId === 1 ? { ...score, points: '6', version: 3 } : score,
    );
    const later = { ...book, scores: saved };
    expect(readDrafts(later, drafts).stale).toEqual(['1/11']);
    expect(readDrafts(later, overTheirs(later, drafts)).stale).toEqual([]);
  });

  it.each([
    [{ points: '8.50', flag: null }, '8.5'],
    [{ points: null, flag: 'collected' as const }, 'collected'],
    [{ points: '18', flag: 'late' as const }, '18 late'],
    [undefined, ''],
  ])('%j is typed as %s', (score, text) => expect(textOfScore(score)).toBe(text));
});
