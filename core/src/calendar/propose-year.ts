import { addDays, dayOrThrow, daysBetween, type Day } from './day.js';
import type { Period, PeriodKind } from './period.js';
import { weekdayOf } from './school-days.js';

/** How schools divide a year: quarters lie in semesters. */
export const yearDivisions = ['quarters', 'trimesters', 'terms'] as const;
export type YearDivision = (typeof yearDivisions)[number];

const parts: Readonly<Record<YearDivision, readonly [kind: PeriodKind, name: string, count: number]>> = {
  quarters: ['quarter', 'Quarter', 4],
  trimesters: ['trimester', 'Trimester', 3],
  terms: ['term', 'Term', 2],
};

/** Days from the first to the last of the shortest year that can be divided, and of the longest. */
export const yearLength = { fewest: 8 * 7, most: 400 };

/** The first and last day of the school year that a day lies in or, from June on, of the one that comes. */
export function usualYear(today: Day): { readonly name: string; readonly startsOn: Day; readonly endsOn: Day } {
  const first = Number(today.slice(0, 4)) - (today.slice(5) < '06-01' ? 1 : 0);
  return {
    name: `${first}–${String(first + 1).slice(2)}`,
    startsOn: dayOrThrow(`${first}-09-01`),
    endsOn: dayOrThrow(`${first + 1}-06-30`),
  };
}

/** Whether a year from one day to another is neither too short nor too long to be divided. */
export function isYearLong(startsOn: Day, endsOn: Day): boolean {
  const days = daysBetween(startsOn, endsOn);
  return days >= yearLength.fewest && days <= yearLength.most;
}

/**
 * A year with its periods, each before those that lie in it, about equally long, each but the first beginning on a Monday. Numbers are below 0, as of what is
 * not kept yet.
 * @param endsOn from 56 to 400 days after the first day
 * @example proposeYear('terms', '2026–27', '2026-09-01', '2027-06-30')[2].startsOn // '2027-02-01'
 */
export function proposeYear(division: YearDivision, name: string, startsOn: Day, endsOn: Day): Period[] {
  const [kind, word, count] = parts[division];
  const year: Period = { id: -1, parentId: null, kind: 'year', name, startsOn, endsOn };
  const starts = Array.from({ length: count }, (_none, at) => startOf(at, count, startsOn, endsOn));
  const endOf = (at: number) => (at + 1 < starts.length ? addDays(starts[at + 1]!, -1) : endsOn);
  const semesters: Period[] =
    division === 'quarters'
      ? [0, 1].map((at) => ({
          id: -2 - at,
          parentId: year.id,
          kind: 'semester',
          name: `Semester ${at + 1}`,
          startsOn: starts[at * 2]!,
          endsOn: endOf(at * 2 + 1),
        }))
      : [];
  const leaves = starts.map((from, at): Period => ({
    id: -10 - at,
    parentId: semesters[Math.floor(at / 2)]?.id ?? year.id,
    kind,
    name: `${word} ${at + 1}`,
    startsOn: from,
    endsOn: endOf(at),
  }));
  const within = (parent: Period) => leaves.filter(({ parentId }) => parentId === parent.id);
  return [year, ...semesters.flatMap((semester) => [semester, ...within(semester)]), ...within(year)];
}

/** The Monday nearest to where the part would begin if all were equally long. */
function startOf(at: number, count: number, startsOn: Day, endsOn: Day): Day {
  if (at === 0) return startsOn;
  const days = daysBetween(startsOn, endsOn) + 1;
  const ideal = addDays(startsOn, Math.round((days * at) / count));
  const sinceMonday = weekdayOf(ideal) - 1;
  return addDays(ideal, sinceMonday <= 3 ? -sinceMonday : 7 - sinceMonday);
}
