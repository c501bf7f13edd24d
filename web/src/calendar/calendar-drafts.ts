import type { BreakBody, CalendarReply, PeriodBody, WindowBody } from '#contract/calendar';
import { createDraftStore } from '../shell/draft-store';

/** A calendar as it is changed. */
export interface CalendarBody {
  readonly weekdays: readonly number[];
  readonly periods: readonly PeriodBody[];
  readonly breaks: readonly BreakBody[];
  readonly windows: readonly WindowBody[];
}

/** Calendars being changed, by school; based on the version they began from. */
export const calendarDrafts = createDraftStore<CalendarBody, number>('wombat-drafts-calendars');

export function bodyOfCalendar({ weekdays, periods, breaks, windows }: CalendarReply): CalendarBody {
  return {
    weekdays,
    periods: periods.map(({ id, parentId, kind, name, startsOn, endsOn }) => ({
      id,
      parentId,
      kind,
      name,
      startsOn,
      endsOn,
    })),
    breaks,
    windows: windows.map(({ id: _id, ...window }) => window),
  };
}

/** What brings a calendar back to what it was: periods that are gone meanwhile are made anew. */
export function restoreOf(before: CalendarBody, after: CalendarReply): CalendarBody {
  const there = new Set(after.periods.map(({ id }) => id));
  const numberNow = (id: number) => (there.has(id) ? id : -Math.abs(id));
  return {
    ...before,
    periods: before.periods.map((period) => ({
      ...period,
      id: numberNow(period.id),
      parentId: period.parentId === null ? null : numberNow(period.parentId),
    })),
    windows: before.windows.map((window) => ({ ...window, periodId: numberNow(window.periodId) })),
  };
}

/** Changes parts of a school's calendar. With `isSameStep` the change joins the step before it, as in a drag. */
export function changeCalendar(calendar: CalendarReply, change: Partial<CalendarBody>, isSameStep = false): void {
  const { school, version } = calendar;
  const saved = bodyOfCalendar(calendar);
  calendarDrafts.change(
    school.id,
    version,
    saved,
    { ...(calendarDrafts.get(school.id)?.now ?? saved), ...change },
    isSameStep,
  );
}
