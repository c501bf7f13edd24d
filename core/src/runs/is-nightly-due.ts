import { addDays, type Day } from '#core/calendar';

/** In the district's zone; the time such as "02:30", from 00:00 to 23:59. */
export interface LocalTime {
  readonly day: Day;
  readonly time: string;
}

/**
 * Whether a nightly run is due: its time of day came since it last began or, if it never did, since it was set up. One
 * that was missed because the computer slept stays due until the next.
 * @example isNightlyDue('02:30', { day: monday, time: '02:30' }, { day: tuesday, time: '02:29' }) // false
 */
export function isNightlyDue(at: string, last: LocalTime, now: LocalTime): boolean {
  const cameLast = now.time >= at ? now.day : addDays(now.day, -1);
  return `${last.day} ${last.time}` < `${cameLast} ${at}`;
}
