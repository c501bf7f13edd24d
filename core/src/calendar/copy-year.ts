import { addDays, daysBetween, type Day } from './day.js';
import type { Period } from './period.js';
import type { Break } from './school-days.js';

/**
 * By how many days a year moves so that every date keeps its day of the week and the first day comes nearest to `wanted`:
 * a whole number of weeks.
 * @example daysToSameWeekday('2025-09-01', '2026-09-01') // 364: Monday 31 August 2026
 */
export function daysToSameWeekday(startsOn: Day, wanted: Day): number {
  return Math.round(daysBetween(startsOn, wanted) / 7) * 7;
}

/** The usual beginning of the next year: the same date a year later. 29 February becomes 28 February. */
export function sameDateNextYear(day: Day): Day {
  const year = Number(day.slice(0, 4)) + 1;
  const rest = day.slice(4) === '-02-29' ? '-02-28' : day.slice(4);
  return `${year}${rest}` as Day;
}

export function movePeriod(period: Period, days: number): Period {
  const moved = { startsOn: addDays(period.startsOn, days), endsOn: addDays(period.endsOn, days) };
  return { ...period, ...moved, name: period.parentId === null ? nextYearName(period.name) : period.name };
}

export function moveBreak(each: Break, days: number): Break {
  return { ...each, startsOn: addDays(each.startsOn, days), endsOn: addDays(each.endsOn, days) };
}

/**
 * The name of the year after: every year number in it one higher.
 * @example nextYearName('2025–26') // '2026–27'
 */
export function nextYearName(name: string): string {
  const next = name.replace(/\b(\d{4}|\d{2})\b/g, (year) =>
    year.length === 4 ? String(Number(year) + 1) : String((Number(year) + 1) % 100).padStart(2, '0'),
  );
  return next === name ? `${name}, next` : next;
}
