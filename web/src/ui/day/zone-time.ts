import { localTime, type Day } from '#core/calendar';
import { districtZone } from '../format';

/** The day an instant falls on, in the district's zone. */
export function dayOfInstant(instant: string): Day {
  return localTime(districtZone(), new Date(instant)).day;
}

/** An instant as a field for day and time shows it, in the district's zone: 2026-01-14T08:00. */
export function localText(instant: string): string {
  const { day, time } = localTime(districtZone(), new Date(instant));
  return `${day}T${time}`;
}

/**
 * The instant of a day and time in the district's zone, undefined where the text is none. An hour that a change to summer
 * time leaves out becomes the one after it.
 */
export function instantOfLocal(text: string): string | undefined {
  if (!/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/.test(text)) return undefined;
  const asUtc = Date.parse(`${text.slice(0, 16)}:00Z`);
  if (Number.isNaN(asUtc)) return undefined;
  const offsetAt = (at: number) => Date.parse(`${localText(new Date(at).toISOString())}:00Z`) - at;
  const found = new Date(asUtc - offsetAt(asUtc - offsetAt(asUtc))).toISOString();
  if (localText(found) === text.slice(0, 16)) return found;
  const dayBefore = asUtc - 86_400_000;
  return new Date(asUtc - offsetAt(dayBefore)).toISOString();
}
