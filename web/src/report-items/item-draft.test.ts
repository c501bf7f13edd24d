import type { PeriodKind } from '#core/calendar';
import { describe, expect, it } from 'vitest';
import type { ItemBody } from '#contract/report-items';
import { shortWeight } from '../ui/weight-bar';
import { ordinalWord, partName } from './composite-bar';
import { bodyOfReply, changesValues, itemFaults, newItem, nextPart } from './item-draft';
import { filterOf } from './items-headline';
import { reply } from '../../test/report-items.fixture';
import { postedInWords } from './words';

it.each<[PeriodKind | undefined, PeriodKind]>([
  [undefined, 'semester'],
  ['quarter', 'quarter'],
  ['year', 'year'],
  ['trimester', 'semester'],
])('a new item, while a %s is looked at, is posted in each %s', (lookedAt, posted) => {
  const periods = (['semester', 'quarter', 'year'] as const).map((kind) => ({ kind, names: [] }));
  expect(newItem({ ...reply, periods }, lookedAt).periodKind).toBe(posted);
});

describe('what keeps an item from being saved', () => {
  const semester = bodyOfReply(reply.items[2]!);
  const withWeights = (...weights: string[]): ItemBody => ({
    ...semester,
    parts: semester.parts.map((part, at) => ({ ...part, weight: weights[at]! })),
  });
  it.each<[string, ItemBody, number, string[]]>([
    ['nothing', semester, 3, []],
    [
      'no name and no heading',
      newItem(reply),
      0,
      ['The item needs a name, such as Quarter grade.', 'The item needs a short heading for its column.'],
    ],
    ['99.99', withWeights('40', '40', '19.99'), 3, ['The weights add up to 99.99; they must make exactly 100.']],
    ['a word', withWeights('40', '40', 'rest'), 3, ['Every weight is a number with at most two decimals, such as 40.']],
    [
      'three decimals',
      withWeights('40', '40', '20.000'),
      3,
      ['Every weight is a number with at most two decimals, such as 40.'],
    ],
    [
      'itself',
      { ...semester, parts: [{ itemId: 3, ordinal: 1, weight: '100' }] },
      3,
      ['Semester grade would be a part of itself: Semester grade → Semester grade.'],
    ],
  ])('%s', (_what, body, id, faults) => expect(itemFaults(body, id, reply)).toEqual(faults));
});

describe('the courses that the address asks for', () => {
  const shown = (search: string) =>
    reply.courses.filter(filterOf(new URLSearchParams(search), reply)).map(({ id }) => id);
  it.each([
    ['', [11, 12, 13, 14]],
    ['show=lacking', [13]],
    ['show=exceptions', [12]],
    ['without=2', [12, 14]],
    ['course=13&show=exceptions', [13]],
  ])('"%s" shows %j', (search, ids) => expect(shown(search)).toEqual(ids));
});

it('says in words when an item is posted and what a part is', () => {
  expect(reply.items.map((each) => postedInWords(each, reply.periods))).toEqual([
    'each quarter',
    'Quarter 2 and Quarter 4',
    'each semester',
  ]);
  expect([partName(reply, 2, 2), partName(reply, 9, 1), ordinalWord(4)]).toEqual([
    'Exam, 2nd quarter',
    'choose an item',
    '4th',
  ]);
  expect(['40.00', '33.30', '100', 'half'].map(shortWeight)).toEqual(['40', '33.3', '100', 'half']);
});

describe('the next part of a composite', () => {
  const semester = bodyOfReply(reply.items[2]!);
  const part = (itemId: number, ordinal: number, weight: string) => ({ itemId, ordinal, weight });

  it.each([
    ['of none is the first item, with all the weight', [], part(1, 1, '100')],
    ['goes on with the item of the last one, with what is left', [part(2, 1, '30')], part(2, 2, '70')],
    ['never repeats one', [part(1, 2, '40'), part(1, 1, '40')], part(1, 3, '20')],
    ['weighs nothing where nothing is left', [part(1, 1, '60'), part(1, 2, '60')], part(1, 3, '0')],
  ])('%s', (_what, parts, expected) => expect(nextPart({ ...semester, parts }, reply)).toEqual(expected));

  it('is none where every item stands in it for each of its periods', () => {
    const all = [1, 2].flatMap((itemId) => [1, 2, 3, 4].map((ordinal) => part(itemId, ordinal, '12.5')));
    expect(nextPart({ ...semester, parts: all }, reply)).toBeUndefined();
  });
});

it.each([
  ['weights', { parts: [{ itemId: 1, ordinal: 1, weight: '100' }] }, true],
  ['rounding', { rounding: 'halfEven' }, true],
  ['decimals', { digits: 0 }, true],
  ['scale', { scaleId: 7 }, true],
  ['standard', { categoryId: 3 }, true],
  ['name', { name: 'Half-year grade' }, false],
  ['comments', { commentLength: 30 }, false],
] as const)('a change of %s is looked at before it is saved: %j → %s', (_what, change, expected) => {
  const before = bodyOfReply(reply.items[2]!);
  expect([changesValues(before, { ...before, ...change } as ItemBody), changesValues(before, { ...before })]).toEqual([
    expected,
    false,
  ]);
});
