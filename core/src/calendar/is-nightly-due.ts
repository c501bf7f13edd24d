import { addDays } from './day.js';
import type { LocalTime } from './local-time.js';

/**
 * Whether a nightly run is due: its time of day came since it last began or, if it never did, since it was set up. One
 * that was missed because the computer slept stays due until the next.
 * @example isNightlyDue('02:30', { day: monday, time: '02:30' }, { day: tuesday, time: '02:29' }) // false
 */
export function isNightlyDue(at: string, last: LocalTime, now: LocalTime): boolean {
  const cameLast = now.time >= at ? now.day : addDays(now.day, -1);
  return `${last.day} ${last.time}` < `${cameLast} ${at}`;
}
