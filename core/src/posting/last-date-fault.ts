import { isPlaceholderDay, isWithin, type Day } from '#core/calendar';

/** Why a day is no last date of attendance of a period: it stands for no date at all, or lies outside of the period. */
export type LastDateFault = 'day-placeholder' | 'day-outside';

/** @param period both ends included */
export function lastDateFault(
  day: Day,
  period: { readonly startsOn: Day; readonly endsOn: Day },
): LastDateFault | undefined {
  if (isPlaceholderDay(day)) return 'day-placeholder';
  return isWithin(day, period) ? undefined : 'day-outside';
}
