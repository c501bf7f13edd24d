import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addDays,
  checkCalendar,
  countInstructionalDays,
  dayOrThrow,
  daysToSameWeekday,
  moveBreak,
  movePeriod,
  nextYearName,
  ordinalOf,
  partCompleted,
  partOfPeriod,
  periodAlike,
  periodBeside,
  periodsWithin,
  sameDateNextYear,
  weekdayOf,
  windowState,
  yearOf,
  type Break,
  type CheckedCalendar,
  type CheckedWindow,
  type Period,
} from './index.js';

const day = dayOrThrow;
const weekdays = [1, 2, 3, 4, 5];
const span = (startsOn: string, endsOn: string) => ({ startsOn: day(startsOn), endsOn: day(endsOn) });
const pause = (id: number, startsOn: string, endsOn: string): Break => ({
  id,
  name: `Break ${id}`,
  ...span(startsOn, endsOn),
});

describe('the part of a period that is over, for student aid', () => {
  it('counts calendar days and leaves out a week off with the weekends beside it: nine days', () => {
    // 34 CFR 668.22(f): 110 days without the nine of a spring break are 101; more than 60 % is over on the 61st (from memory).
    const term = span('2026-01-12', '2026-05-01');
    const found = partOfPeriod(term, weekdays, [pause(1, '2026-03-09', '2026-03-13')]);
    expect([found.days, found.leftOut]).toEqual([101, [{ startsOn: '2026-03-07', endsOn: '2026-03-15', days: 9 }]]);
    expect(found.sixtyPercentDay).toBe(addDays(day('2026-01-12'), 60 + 9));
  });

  it.each([
    [
      'a long weekend of four days counts as class time',
      span('2025-11-03', '2025-12-12'),
      [pause(1, '2025-11-27', '2025-11-28')],
      40,
    ],
    ['five days in a row do not', span('2025-11-03', '2025-12-12'), [pause(1, '2025-11-26', '2025-11-28')], 35],
    [
      'two breaks that touch are one row of days',
      span('2025-11-03', '2025-12-12'),
      [pause(1, '2025-11-24', '2025-11-25'), pause(2, '2025-11-26', '2025-11-28')],
      31,
    ],
    [
      'a break that ended the day before takes no day of it away, however few its class days are',
      span('2025-12-01', '2025-12-19'),
      [pause(1, '2025-11-24', '2025-11-30')],
      19,
    ],
    [
      'a break that reaches past the end is cut there',
      span('2025-12-01', '2025-12-19'),
      [pause(1, '2025-12-15', '2026-01-02')],
      12,
    ],
  ])('%s', (_what, term, breaks, expected) => expect(partOfPeriod(term, weekdays, breaks).days).toBe(expected));

  it('exactly 60 % is not yet more than 60 %', () => {
    const tenDays = span('2026-01-05', '2026-01-14');
    expect(partOfPeriod(tenDays, weekdays, []).sixtyPercentDay).toBe('2026-01-11');
    expect(partCompleted(tenDays, weekdays, [], day('2026-01-10'))).toEqual({ numerator: 3n, denominator: 5n });
    expect(partCompleted(tenDays, weekdays, [], day('2026-01-04'))).toEqual({ numerator: 0n, denominator: 1n });
    expect(partCompleted(tenDays, weekdays, [], day('2026-03-01'))).toEqual({ numerator: 1n, denominator: 1n });
  });
});

it('counts the days with classes', () => {
  expect(
    countInstructionalDays(span('2025-11-24', '2025-12-05'), weekdays, [pause(1, '2025-11-27', '2025-11-28')]),
  ).toBe(8);
});

describe('copying a year', () => {
  it('moves by whole weeks to the beginning nearest to the same date', () => {
    expect(sameDateNextYear(day('2024-02-29'))).toBe('2025-02-28');
    expect(daysToSameWeekday(day('2025-09-01'), day('2026-09-01'))).toBe(364);
    expect(daysToSameWeekday(day('2025-09-04'), day('2026-09-08'))).toBe(371);
  });

  it('keeps every day of the week and every length', () => {
    const days = fc.integer({ min: 0, max: 20_000 }).map((at) => addDays(day('2000-01-01'), at));
    fc.assert(
      fc.property(
        days,
        fc.integer({ min: 0, max: 300 }),
        fc.integer({ min: -3, max: 3 }),
        (startsOn, length, drift) => {
          const shift = daysToSameWeekday(startsOn, addDays(sameDateNextYear(startsOn), drift));
          const moved = moveBreak({ id: 1, name: 'Break', startsOn, endsOn: addDays(startsOn, length) }, shift);
          expect([weekdayOf(moved.startsOn), moved.endsOn]).toEqual([
            weekdayOf(startsOn),
            addDays(moved.startsOn, length),
          ]);
        },
      ),
      { seed: 20_260_121 },
    );
  });

  it.each([
    ['2025–26', '2026–27'],
    ['Year 2025/2026', 'Year 2026/2027'],
    ['1999–00', '2000–01'],
    ['Practice', 'Practice, next'],
  ])('calls the year after %s %s', (name, next) => expect(nextYearName(name)).toBe(next));
});

const period = (id: number, parentId: number | null, name: string, startsOn: string, endsOn: string): Period => ({
  id,
  parentId,
  name,
  kind: parentId === null ? 'year' : 'quarter',
  ...span(startsOn, endsOn),
});
const year = period(1, null, '2025–26', '2025-09-01', '2025-12-31');
const first = period(2, 1, 'Quarter 1', '2025-09-01', '2025-10-31');
const second = period(3, 1, 'Quarter 2', '2025-11-01', '2025-12-31');

it('finds the year of a period, and its place among its kind', () => {
  const next = movePeriod(year, 364);
  const periods = [year, second, first, { ...next, id: 9 }];
  expect([
    yearOf(periods, second).id,
    ordinalOf(periods, second),
    periodsWithin(periods, year, 'quarter').map(({ id }) => id),
  ]).toEqual([1, 2, [2, 3]]);
  expect([next.name, next.startsOn, next.endsOn]).toEqual(['2026–27', '2026-08-31', '2026-12-30']);
});

describe('the faults of a calendar', () => {
  const window: CheckedWindow = {
    id: 1,
    itemName: 'Quarter grade',
    periodId: 2,
    opensOn: day('2025-10-24'),
    closesOn: day('2025-11-04'),
    opensAt: '2025-10-24T08:00:00Z',
    closesAt: '2025-11-04T17:00:00Z',
    graceUntil: null,
    earlyReason: '',
  };
  const found = (more: Partial<CheckedCalendar>) =>
    checkCalendar({
      weekdays,
      periods: [year, first, second],
      breaks: [],
      windows: [],
      sections: [],
      ...more,
    }).map(({ code, id, severity }) => `${severity} ${code} ${id}`);
  it.each<[string, Partial<CheckedCalendar>, string[]]>([
    ['nothing where all fits', { windows: [window] }, []],
    [
      'a period that ends before it starts',
      { periods: [{ ...year, endsOn: day('2025-08-01') }] },
      ['blocks period-ends-before-start 1'],
    ],
    [
      'a period outside its parent',
      { periods: [year, first, { ...second, endsOn: day('2026-01-05') }] },
      ['blocks period-outside-parent 3'],
    ],
    [
      'a gap between two periods',
      { periods: [year, first, { ...second, startsOn: day('2025-11-04') }] },
      ['warns periods-gap 3'],
    ],
    [
      'a gap at the end of the parent',
      { periods: [year, first, { ...second, endsOn: day('2025-12-19') }] },
      ['warns periods-gap 3'],
    ],
    [
      'two periods that share days',
      { periods: [year, first, { ...second, startsOn: day('2025-10-31') }] },
      ['blocks periods-overlap 3'],
    ],
    [
      'a name twice in one parent',
      { periods: [year, first, { ...second, name: 'Quarter 1' }] },
      ['blocks period-name-twice 3'],
    ],
    ['a period without a name', { periods: [year, first, { ...second, name: ' ' }] }, ['blocks period-name-missing 3']],
    ['a break outside every year', { breaks: [pause(5, '2026-02-01', '2026-02-03')] }, ['blocks break-outside-year 5']],
    [
      'a break that ends before it starts',
      { breaks: [pause(5, '2025-11-03', '2025-11-01')] },
      ['blocks break-ends-before-start 5'],
    ],
    [
      'a window that closes before it opens',
      { windows: [{ ...window, closesAt: window.opensAt }] },
      ['blocks window-closes-before-opens 1'],
    ],
    [
      'grace that ends before the window closes',
      { windows: [{ ...window, graceUntil: '2025-11-03T00:00:00Z' }] },
      ['blocks window-grace-before-close 1'],
    ],
    [
      'a window before the end of its period, with no reason',
      { windows: [{ ...window, closesOn: day('2025-10-30') }] },
      ['warns window-before-end 1'],
    ],
    [
      'no fault where the reason is given',
      { windows: [{ ...window, closesOn: day('2025-10-30'), earlyReason: 'report evening' }] },
      [],
    ],
    [
      'a section whose dates its period does not hold',
      { sections: [{ id: 8, name: 'Knots 1', periodId: 2, ...span('2025-09-01', '2025-11-03') }] },
      ['warns section-outside-period 8'],
    ],
  ])('%s', (_what, more, expected) => expect(found(more)).toEqual(expected));
});

it('a window in grace is neither open nor closed', () => {
  const window = {
    opensAt: '2026-01-14T08:00:00Z',
    closesAt: '2026-01-23T17:00:00Z',
    graceUntil: '2026-01-26T17:00:00Z',
  };
  expect(
    ['2026-01-23T16:59:59Z', '2026-01-23T17:00:00Z', '2026-01-26T17:00:00Z'].map((now) => windowState(window, now)),
  ).toEqual(['open', 'grace', 'closed']);
});

describe('the period beside another', () => {
  const period = (id: number, kind: Period['kind'], startsOn: string) => ({ id, kind, startsOn: day(startsOn) });
  const periods = [
    period(1, 'year', '2025-09-01'),
    period(2, 'semester', '2025-09-01'),
    period(3, 'semester', '2026-01-26'),
    period(4, 'quarter', '2025-09-01'),
    period(5, 'quarter', '2025-11-10'),
    period(6, 'quarter', '2026-01-26'),
    period(7, 'quarter', '2026-04-06'),
    period(8, 'quarter', '2026-08-31'),
  ];
  it.each([
    ['a quarter', 4, 1, 5],
    ['the last quarter of a year, on to the next year', 7, 1, 8],
    ['a quarter of the next year, back', 8, -1, 7],
    ['a semester, not its quarters', 2, 1, 3],
    ['the last semester there is', 3, 1, undefined],
    ['the first quarter, back', 4, -1, undefined],
    ['one that is not there', 99, 1, undefined],
  ] as const)('of %s is of its own kind', (_what, id, by, expected) => {
    expect(periodBeside(periods, id, by)?.id).toBe(expected);
  });
});

it('the period alike of another year is the same one of its kind, else the first within it', () => {
  const period = (id: number, parentId: number | null, kind: Period['kind'], startsOn: string, endsOn: string) => ({
    ...span(startsOn, endsOn),
    id,
    parentId,
    kind,
    name: `${kind} ${id}`,
  });
  const periods = [
    period(1, null, 'year', '2025-09-01', '2026-06-12'),
    period(2, 1, 'quarter', '2025-09-01', '2025-11-07'),
    period(3, 1, 'quarter', '2025-11-10', '2026-06-12'),
    period(4, null, 'year', '2026-08-31', '2027-06-11'),
    period(5, 4, 'quarter', '2026-08-31', '2026-11-06'),
    period(6, 4, 'quarter', '2026-11-09', '2027-06-11'),
    period(7, null, 'year', '2027-08-30', '2028-06-09'),
    period(8, 7, 'semester', '2027-08-30', '2028-06-09'),
    period(9, null, 'year', '2028-08-28', '2029-06-08'),
  ];
  const found = [
    [3, 4],
    [5, 1],
    [1, 4],
    [3, 7],
    [3, 9],
  ].map(([id, year]) => periodAlike(periods, id!, year!).id);
  expect(found).toEqual([6, 2, 4, 8, 9]);
});
