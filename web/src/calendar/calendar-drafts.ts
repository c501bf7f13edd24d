import type { BreakBody, CalendarReply, PeriodBody, WindowBody } from '#contract/calendar';
import { createDraftStore } from '../shell/draft-store';

/** A calendar as it is changed. */
export interface CalendarBody {
  readonly weekdays: readonly number[];
  readonly periods: readonly PeriodBody[];
  readonly breaks: readonly BreakBody[];
  readonly windows: readonly WindowBody[];
}

/** Calendars being changed, by school; based on the revision they began from. */
export const calendarDrafts = createDraftStore<CalendarBody, string>('calendars');

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

/** Changes parts of a school's calendar. With `isSameStep` the change joins the step before it, as in a drag. */
export function changeCalendar(calendar: CalendarReply, change: Partial<CalendarBody>, isSameStep = false): void {
  const { school, revision } = calendar;
  const saved = bodyOfCalendar(calendar);
  calendarDrafts.change(
    school.id,
    revision,
    saved,
    { ...(calendarDrafts.get(school.id)?.now ?? saved), ...change },
    isSameStep,
  );
}
