import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkCalendar } from './check-calendar.js';
import { addDays, dayOrThrow, daysBetween } from './day.js';
import { isYearLong, proposeYear, usualYear, yearDivisions, yearLength } from './propose-year.js';
import { weekdayOf } from './school-days.js';

const [first, last] = [dayOrThrow('2026-09-01'), dayOrThrow('2027-06-30')];

it.each([
  ['2026-05-31', '2025–26', '2025-09-01', '2026-06-30'],
  ['2026-06-01', '2026–27', '2026-09-01', '2027-06-30'],
  ['2099-12-31', '2099–00', '2099-09-01', '2100-06-30'],
])('on %s the usual year is %s', (today, name, startsOn, endsOn) => {
  expect(usualYear(dayOrThrow(today))).toEqual({ name, startsOn, endsOn });
});

it.each([
  [yearLength.fewest - 1, false],
  [yearLength.fewest, true],
  [yearLength.most, true],
  [yearLength.most + 1, false],
  [-1, false],
])('a year whose last day is %i days after its first is long enough and not too long: %s', (days, isIt) => {
  expect(isYearLong(first, addDays(first, days))).toBe(isIt);
});

describe('a year that is proposed', () => {
  it('in quarters has two semesters with two quarters each', () => {
    expect(
      proposeYear('quarters', '2026–27', first, last).map(({ name, startsOn, endsOn }) => [name, startsOn, endsOn]),
    ).toEqual([
      ['2026–27', '2026-09-01', '2027-06-30'],
      ['Semester 1', '2026-09-01', '2027-01-31'],
      ['Quarter 1', '2026-09-01', '2026-11-15'],
      ['Quarter 2', '2026-11-16', '2027-01-31'],
      ['Semester 2', '2027-02-01', '2027-06-30'],
      ['Quarter 3', '2027-02-01', '2027-04-18'],
      ['Quarter 4', '2027-04-19', '2027-06-30'],
    ]);
  });

  it.each([
    ['trimesters', ['Trimester 1', 'Trimester 2', 'Trimester 3']],
    ['terms', ['Term 1', 'Term 2']],
  ] as const)('in %s lies in the year alone', (division, names) => {
    const [year, ...parts] = proposeYear(division, 'Y', first, last);
    expect(parts.map(({ name, parentId }) => [name, parentId])).toEqual(names.map((name) => [name, year!.id]));
  });

  it('of any length leaves no day out, takes none twice, begins on Mondays, and has no fault', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...yearDivisions),
        fc.integer({ min: 0, max: 3000 }),
        fc.integer({ min: yearLength.fewest, max: yearLength.most }),
        (division, from, days) => {
          const startsOn = addDays(dayOrThrow('2024-01-01'), from);
          const endsOn = addDays(startsOn, days);
          const periods = proposeYear(division, 'Y', startsOn, endsOn);
          const leaves = periods.filter(({ kind }) => kind !== 'year' && kind !== 'semester');
          expect([leaves[0]!.startsOn, leaves.at(-1)!.endsOn]).toEqual([startsOn, endsOn]);
          for (const [at, leaf] of leaves.slice(1).entries()) {
            expect([weekdayOf(leaf.startsOn), daysBetween(leaves[at]!.endsOn, leaf.startsOn)]).toEqual([1, 1]);
          }
          const calendar = { weekdays: [1, 2, 3, 4, 5], periods, breaks: [], windows: [], sections: [] };
          expect(checkCalendar(calendar)).toEqual([]);
        },
      ),
      { seed: 11 },
    );
  });
});
