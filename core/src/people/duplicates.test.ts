import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { likelyDuplicates, mergePeople, mergeSeats, type Person } from './index.js';

const person = (id: number, over: Partial<Person> = {}): Person & { id: number } => ({
  id,
  kind: 'student',
  number: `S${id}`,
  givenName: 'Tamsin',
  familyName: 'Reed',
  email: `${id}@port.example`,
  birthDate: dayOrThrow('2010-05-17'),
  preferredName: null,
  yearGroup: '9',
  enteredOn: null,
  leftOn: null,
  pronoun: null,
  ...over,
});
const found = (one: Partial<Person>, other: Partial<Person>) =>
  likelyDuplicates([person(1, one), person(2, other)]).map(({ reasons }) => reasons)[0] ?? [];
const later = { birthDate: dayOrThrow('2010-05-18') };
const unknown = { birthDate: null };

describe('two records', () => {
  it.each([
    ['of one name and day of birth', {}, {}, ['same-birth-date']],
    ['spelled with two letters swapped', {}, { givenName: 'Tasmin' }, ['same-birth-date']],
    ['under a short name', {}, { givenName: 'Tam' }, ['same-birth-date']],
    ['with the names the other way round', {}, { givenName: 'Reed', familyName: 'Tamsin' }, ['same-birth-date']],
    ['with accents and without', { familyName: 'Réed' }, {}, ['same-birth-date']],
    ['of one number in another case', { number: 'k1' }, { number: 'K1', ...later, givenName: 'Bo' }, ['same-number']],
    ['of one address and name', { email: 'r@x.example' }, { email: 'R@x.example', ...later }, ['same-address']],
    ['of one name where a day of birth is missing', unknown, {}, ['same-name']],
    ['for two reasons', { number: 'K1' }, { number: 'K1' }, ['same-number', 'same-birth-date']],
  ] as const)('%s may be of one person', (_what, one, other, reasons) => expect(found(one, other)).toEqual(reasons));

  it.each([
    ['twins', {}, { givenName: 'Corran' }],
    ['two of one name and two days of birth', {}, later],
    ['siblings with one address', { email: 'r@x.example' }, { email: 'r@x.example', givenName: 'Bo', ...later }],
    ['a student and one of the staff', {}, { kind: 'staff' }],
    ['two without an address', { email: '', ...later }, { email: '' }],
    ['two without a number', { number: null, ...later }, { number: null }],
  ] as const)('of %s are not asked about', (_what, one, other) => expect(found(one, other)).toEqual([]));
});

it('the likeliest come first, each pair once, in whatever order the people stand', () => {
  const people = [person(1), person(2), person(3, { number: 'S1', ...later }), person(4, { givenName: 'Zed' })];
  const pairs = likelyDuplicates(people).map(({ one, other }) => [one.id, other.id]);
  expect(pairs).toEqual([
    [1, 3],
    [1, 2],
  ]);
  const turned = likelyDuplicates(people.toReversed()).map(({ one, other }) => [one.id, other.id].toSorted());
  expect(turned).toEqual(pairs);
});

const facts = fc.record({
  number: fc.constantFrom(null, 'S1', 'S2'),
  email: fc.constantFrom('', 'a@b.example'),
  birthDate: fc.constantFrom(null, dayOrThrow('2010-05-17')),
  yearGroup: fc.constantFrom(null, '9', '10'),
});

describe('one record of two', () => {
  it('keeps all that it says, and lacks only what both lack', () => {
    fc.assert(
      fc.property(facts, facts, (one, other) => {
        const { person: merged, filled } = mergePeople(person(1, one), person(2, other));
        for (const field of ['number', 'email', 'birthDate', 'yearGroup'] as const) {
          expect(merged[field]).toEqual(one[field] || other[field] || one[field]);
          expect(filled.includes(field)).toBe(!one[field] && Boolean(other[field]));
        }
      }),
    );
  });

  it('keeps its name, whatever the other is called', () => {
    expect(mergePeople(person(1), person(2, { givenName: 'Tasmin' })).person).toMatchObject({ givenName: 'Tamsin' });
  });
});

it.each([
  ['nothing on either', false, false, [2], []],
  ['work on the seat that stays', true, false, [2], []],
  ['work on the seat of the record that goes', false, true, [1], []],
  ['work on both', true, true, [], ['Knots 1']],
])('of two seats in one section, with %s', (_what, kept, gone, dropped, stuck) => {
  const shared = { section: 'Knots 1', keptSeat: { id: 1, isUsed: kept }, goneSeat: { id: 2, isUsed: gone } };
  const obstacles = stuck.map((section) => ({ code: 'work-in-both', section }));
  expect(mergeSeats([shared])).toEqual({ dropped, obstacles });
});
