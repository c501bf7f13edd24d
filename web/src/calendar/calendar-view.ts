import {
  addDays,
  checkCalendar,
  countInstructionalDays,
  liesIn,
  partOfPeriod,
  weekdayOf,
  yearOf,
  type CalendarFault,
  type Day,
  type PartOfPeriod,
} from '#core/calendar';
import { isPostedIn } from '#core/report-items';
import type { CalendarReply, PeriodBody, WindowBody } from '#contract/calendar';
import { dayOfInstant, instantOfLocal } from '../ui/day/zone-time';
import type { CalendarBody } from './calendar-drafts';

/** A period of one year as the screen shows it. */
export interface PeriodView {
  readonly period: PeriodBody;
  /** 0 for the year, 1 for what lies in it, and so on. */
  readonly depth: number;
  readonly classDays: number;
  readonly part: PartOfPeriod;
  readonly isSealed: boolean;
  readonly windows: readonly WindowBody[];
  /** Items posted in it, with or without a window. */
  readonly items: CalendarReply['items'];
  readonly faults: readonly CalendarFault[];
}

/** The periods of one year in their order: each before those inside it. */
export function periodViews(calendar: CalendarReply, body: CalendarBody, year: PeriodBody): PeriodView[] {
  const { periods, weekdays, breaks, windows } = body;
  const faults = calendarFaults(calendar, body);
  const walk = (parentId: number | null, depth: number): PeriodView[] =>
    periods
      .filter((period) => (depth === 0 ? period.id === year.id : period.parentId === parentId))
      .toSorted((a, b) => (a.startsOn < b.startsOn ? -1 : 1))
      .flatMap((period) => [
        {
          period,
          depth,
          classDays: countInstructionalDays(period, weekdays, breaks),
          part: partOfPeriod(period, weekdays, breaks),
          isSealed: calendar.periods.find(({ id }) => id === period.id)?.isSealed ?? false,
          windows: windows.filter(({ periodId }) => periodId === period.id),
          items: calendar.items.filter((item) => isPostedIn(item, periods, period)),
          faults: faults.filter((fault) => faultPeriod(fault, windows) === period.id),
        },
        ...walk(period.id, depth + 1),
      ]);
  return walk(null, 0);
}

/** The faults of the calendar as it is drafted; windows bear their place in the list as number. */
export function calendarFaults(calendar: CalendarReply, body: CalendarBody): CalendarFault[] {
  return checkCalendar({
    ...body,
    sections: calendar.sections,
    windows: body.windows.map((window, index) => ({
      ...window,
      id: index,
      itemName: calendar.items.find(({ id }) => id === window.itemId)?.name ?? '',
      opensOn: dayOfInstant(window.opensAt),
      closesOn: dayOfInstant(window.closesAt),
    })),
  });
}

function faultPeriod({ of, id }: CalendarFault, windows: readonly WindowBody[]): number | undefined {
  return of === 'period' ? id : of === 'window' ? windows[id]?.periodId : undefined;
}

/** The years of a calendar, the earliest first. */
export function yearsOf({ periods }: Pick<CalendarBody, 'periods'>): PeriodBody[] {
  return periods.filter(({ parentId }) => parentId === null).toSorted((a, b) => (a.startsOn < b.startsOn ? -1 : 1));
}

/** The year of a calendar that shares most with another one, so that years of several schools stand over each other. */
export function yearBeside(
  body: Pick<CalendarBody, 'periods'>,
  year: Pick<PeriodBody, 'startsOn' | 'endsOn'>,
): PeriodBody | undefined {
  return yearsOf(body).find(({ startsOn, endsOn }) => startsOn <= year.endsOn && endsOn >= year.startsOn);
}

/** The year that holds a period, by its number. */
export function yearOfPeriod({ periods }: Pick<CalendarBody, 'periods'>, periodId: number): PeriodBody | undefined {
  const period = periods.find(({ id }) => id === periodId);
  return period && yearOf(periods, period);
}

/** A calendar without a period and all that lies in it: with a year go the breaks that no other year holds. */
export function withoutPeriod(body: CalendarBody, period: PeriodBody): CalendarBody {
  const gone = new Set(body.periods.filter((each) => liesIn(body.periods, each, period)).map(({ id }) => id));
  const kept = body.periods.filter(({ id }) => !gone.has(id));
  return {
    ...body,
    periods: kept,
    windows: body.windows.filter(({ periodId }) => !gone.has(periodId)),
    breaks: body.breaks.filter(
      (each) =>
        period.parentId !== null || !yearBeside({ periods: [period] }, each) || yearBeside({ periods: kept }, each),
    ),
  };
}

/** A number for a new period or break, below 0 and below all that are there. */
export function newId(list: readonly { readonly id: number }[]): number {
  return Math.min(0, ...list.map(({ id }) => id)) - 1;
}

/** A week before the end of the period until the first day with classes two or more days after it. */
export function newWindow(itemId: number, period: PeriodBody, weekdays: readonly number[]): WindowBody {
  let closing = addDays(period.endsOn, 2);
  while (weekdays.length > 0 && !weekdays.includes(weekdayOf(closing))) closing = addDays(closing, 1);
  const at = (day: Day, time: string) => instantOfLocal(`${day}T${time}`)!;
  return {
    itemId,
    periodId: period.id,
    opensAt: at(addDays(period.endsOn, -7), '08:00'),
    closesAt: at(closing, '17:00'),
    graceUntil: null,
    latePosters: 'registrars',
    earlyReason: '',
  };
}
