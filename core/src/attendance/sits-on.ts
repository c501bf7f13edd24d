import type { Day } from '#core/calendar';

/**
 * Whether a student sits in a section on a day: from the day of coming to the day of leaving, both included.
 * @example sitsOn({ enteredOn: '2026-01-05', withdrawnOn: null }, '2026-01-05') // true
 */
export function sitsOn(
  { enteredOn, withdrawnOn }: { readonly enteredOn: Day; readonly withdrawnOn: Day | null },
  day: Day,
): boolean {
  return enteredOn <= day && (withdrawnOn === null || day <= withdrawnOn);
}
