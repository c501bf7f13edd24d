import type { TermLineReply } from '#contract/calendar';
import { dayOfInstant, instantOfLocal } from '../ui/day/zone-time';

/** Something that happens in the school's year. */
export interface NextDate {
  /** ISO instant. */
  readonly at: string;
  readonly says: string;
  /** Whole days from today in the district's zone, 0 for today. */
  readonly inDays: number;
}

const msPerDay = 86_400_000;

/** What comes next in the year, soonest first: windows that open and close, periods that begin and end. */
export function nextDates({ periods, now }: Pick<TermLineReply, 'periods' | 'now'>, count: number): NextDate[] {
  const dates = periods.flatMap(({ name, startsOn, endsOn, posting }) => [
    { at: instantOfLocal(`${startsOn}T00:00`)!, says: `${name} begins` },
    { at: instantOfLocal(`${endsOn}T23:59`)!, says: `${name} ends` },
    ...(posting?.window
      ? [
          { at: posting.window.opensAt, says: `the window of ${name} opens` },
          { at: posting.window.closesAt, says: `the window of ${name} closes` },
        ]
      : []),
  ]);
  const today = Date.parse(dayOfInstant(now));
  return dates
    .filter(({ at }) => Date.parse(at) > Date.parse(now))
    .toSorted((a, b) => Date.parse(a.at) - Date.parse(b.at))
    .slice(0, count)
    .map((date) => ({ ...date, inDays: Math.round((Date.parse(dayOfInstant(date.at)) - today) / msPerDay) }));
}
