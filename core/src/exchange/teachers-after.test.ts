import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import type { ExchangeRow, ExchangeRows } from './exchange-format.js';
import { planExchange } from './plan-exchange.js';
import { teachersAfter } from './teachers-after.js';

const teaches = (userSourcedId: string, over: ExchangeRow = {}): ExchangeRow => ({
  sourcedId: `t-${userSourcedId}`,
  classSourcedId: 'c',
  schoolSourcedId: 's',
  userSourcedId,
  role: 'teacher',
  status: 'active',
  dateLastModified: '2026-01-05T00:00:00Z',
  ...over,
});
const primary = { primary: 'true' };
const other = { primary: 'false' };
const gone = { status: 'tobedeleted' };

describe('the teacher of a class after an import', () => {
  it.each<[string, ExchangeRow[], ExchangeRow[], string | undefined]>([
    ['the first where nobody says who is primary', [], [teaches('a'), teaches('b')], 'a'],
    ['the primary one, wherever it stands', [], [teaches('a'), teaches('b', primary)], 'b'],
    ['whatever the case of the word', [], [teaches('a'), teaches('b', { primary: 'TRUE' })], 'b'],
    ['the only one, though it is said to be no primary one', [], [teaches('a', other)], 'a'],
    ['who teaches it here, where all go unsaid', [teaches('b', primary)], [teaches('a'), teaches('b')], 'b'],
    ['another one, where the rows know only another one', [teaches('a', primary)], [teaches('b')], 'b'],
    ['who teaches it here, where a delta adds a co-teacher', [teaches('a', primary)], [teaches('b', other)], 'a'],
    [
      'the new primary one, though the old one stays',
      [teaches('a', primary)],
      [teaches('a', other), teaches('b', primary)],
      'b',
    ],
    [
      'who stays, where the teacher goes',
      [teaches('a', primary), teaches('b', other)],
      [teaches('a', gone), teaches('b', other)],
      'b',
    ],
    ['who teaches it here, where nobody is left', [teaches('a', primary)], [teaches('a', gone)], 'a'],
    [
      'who teaches it here, where a co-teacher goes',
      [teaches('a', primary), teaches('b', other)],
      [teaches('b', gone)],
      'a',
    ],
    ['nobody, where nobody is named', [], [{ ...teaches('a'), role: 'student' }], undefined],
  ])('is %s', (_case, here, zip, expected) => {
    expect(teachersAfter(here, zip).get('c')).toBe(expected);
  });
});

describe('rows of co-teachers', () => {
  const school = { sourcedId: 's', name: 'Upper', type: 'school', identifier: 'U' };
  const person = (sourcedId: string) => ({
    sourcedId,
    orgSourcedIds: 's',
    role: 'teacher',
    enabledUser: 'true',
    username: sourcedId,
    givenName: 'G',
    familyName: sourcedId,
  });
  const here = (...enrollments: ExchangeRow[]): ExchangeRows => ({
    orgs: [school],
    academicSessions: [
      {
        sourcedId: 't',
        title: 'Year',
        type: 'schoolYear',
        startDate: '2025-09-01',
        endDate: '2026-06-12',
        schoolYear: '2026',
      },
    ],
    users: ['a', 'b', 'x'].map(person),
    courses: [{ sourcedId: 'k', title: 'Knots', orgSourcedId: 's' }],
    classes: [
      {
        sourcedId: 'c',
        title: 'Knots 1',
        courseSourcedId: 'k',
        classType: 'scheduled',
        schoolSourcedId: 's',
        termSourcedIds: 't',
      },
    ],
    enrollments,
  });
  const manifest = { version: '1.1', modes: { enrollments: 'delta' } } as unknown as Parameters<typeof planExchange>[0];
  const plan = (held: ExchangeRow[], zip: ExchangeRow[], today = '2026-01-20') =>
    planExchange(manifest, { enrollments: zip }, here(...held), {
      sealed: new Set(),
      merged: new Map(),
      today: dayOrThrow(today),
    }).map(({ outcome, row, faults }) =>
      [row['userSourcedId'], outcome, ...faults.map(({ field }) => field)].join(' '),
    );

  it('are new, the same, and gone like others', () => {
    const held = [teaches('a', primary), teaches('b', other)];
    expect(plan(held, [teaches('a', primary), teaches('b', other), teaches('x', other)])).toEqual([
      'a same',
      'b same',
      'x new',
    ]);
    expect(plan(held, [teaches('b', gone), teaches('x', gone)])).toEqual(['b delete', 'x same']);
  });

  it('change places with the teacher', () => {
    const held = [teaches('a', primary), teaches('b', other)];
    expect(plan(held, [teaches('a', other), teaches('b', primary)])).toEqual(['a changed', 'b changed']);
  });

  it('end on the day after their last one, and the teacher stays until another comes', () => {
    const held = [teaches('a', primary), teaches('b', other)];
    const until = { ...other, endDate: '2026-01-20' };
    expect(plan(held, [teaches('b', until)])).toEqual(['b changed']);
    expect(plan(held, [teaches('b', until), teaches('x', until)], '2026-01-21')).toEqual([
      'b delete',
      'x left endDate',
    ]);
    expect(plan(held, [teaches('a', gone)])).toEqual(['a left status']);
  });
});
