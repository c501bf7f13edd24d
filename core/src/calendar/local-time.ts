import { dayOrThrow, type Day } from './day.js';

/** A day and a time of day, to the minute, on the clocks of a time zone. */
export interface LocalTime {
  readonly day: Day;
  /** Such as "17:00". */
  readonly time: string;
}

/**
 * What the clocks of a time zone show at an instant.
 *
 * @param zone an IANA name such as "Europe/London"
 * @throws RangeError for a zone that there is not
 * @example localTime('America/Los_Angeles', new Date('2026-01-21T06:30:00Z')) // { day: '2026-01-20', time: '22:30' }
 */
export function localTime(zone: string, instant: Date): LocalTime {
  const [day, time] = formatOf(zone).format(instant).split(' ') as [string, string];
  return { day: dayOrThrow(day), time };
}

const formats = new Map<string, Intl.DateTimeFormat>();

/** Made once for a zone: making one takes several times as long as using it. */
function formatOf(zone: string): Intl.DateTimeFormat {
  // Sweden writes days and times as ISO 8601 does.
  const known = formats.get(zone);
  const format = known ?? new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' });
  formats.set(zone, format);
  return format;
}
