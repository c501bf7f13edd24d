import type { BreakBody, PeriodBody, WindowBody } from '#contract/calendar';

/** A school's calendar as a whole: what is saved of it, and what the log tells of it. */
export interface CalendarBody {
  /** Days of the week with classes, 1 for Monday to 7 for Sunday. */
  readonly weekdays: readonly number[];
  readonly periods: readonly PeriodBody[];
  readonly breaks: readonly Omit<BreakBody, 'id'>[];
  readonly windows: readonly WindowBody[];
}

/** A calendar in the one order in which it is compared, whatever order it came in, and nothing else of it. */
export function valueOfCalendar({ weekdays, periods, breaks, windows }: CalendarBody): CalendarBody {
  return {
    weekdays: [...new Set(weekdays)].toSorted((a, b) => a - b),
    periods: periods
      .map(({ id, parentId, kind, name, startsOn, endsOn }) => ({ id, parentId, kind, name, startsOn, endsOn }))
      .toSorted((a, b) => a.id - b.id),
    breaks: breaks
      .map(({ name, startsOn, endsOn }) => ({ name, startsOn, endsOn }))
      .toSorted((a, b) => (a.startsOn + a.name < b.startsOn + b.name ? -1 : 1)),
    windows: windows
      .map(({ itemId, periodId, opensAt, closesAt, graceUntil, latePosters, earlyReason }) => ({
        itemId,
        periodId,
        opensAt: instant(opensAt),
        closesAt: instant(closesAt),
        graceUntil: graceUntil === null ? null : instant(graceUntil),
        latePosters,
        earlyReason,
      }))
      .toSorted((a, b) => a.periodId - b.periodId || a.itemId - b.itemId || (a.opensAt < b.opensAt ? -1 : 1)),
  };
}

/** The same instant is written the same way, however it came. */
function instant(text: string): string {
  return new Date(text).toISOString();
}
