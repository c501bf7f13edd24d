import { addDays, daysBetween, type Day } from './day.js';

/** A stretch of days without classes, both ends included. */
export interface Break {
  readonly id: number;
  readonly name: string;
  readonly startsOn: Day;
  readonly endsOn: Day;
}

/** Days of the week with classes, 1 for Monday to 7 for Sunday. */
export type Weekdays = readonly number[];

type Stretch = { readonly startsOn: Day; readonly endsOn: Day };

/** 1 for Monday to 7 for Sunday. */
export function weekdayOf(day: Day): number {
  return new Date(`${day}T00:00:00Z`).getUTCDay() || 7;
}

/** The days of a stretch with classes: days of the week with classes that lie in no break. */
export function countInstructionalDays(stretch: Stretch, weekdays: Weekdays, breaks: readonly Break[]): number {
  return daysOf(stretch).filter((day) => isInstructional(day, weekdays, breaks)).length;
}

export function isInstructional(day: Day, weekdays: Weekdays, breaks: readonly Break[]): boolean {
  return weekdays.includes(weekdayOf(day)) && !breaks.some(({ startsOn, endsOn }) => startsOn <= day && day <= endsOn);
}

/** Every day of a stretch, in order; none where it ends before it starts. */
export function daysOf({ startsOn, endsOn }: Stretch): Day[] {
  return Array.from({ length: Math.max(0, daysBetween(startsOn, endsOn) + 1) }, (_each, at) => addDays(startsOn, at));
}
