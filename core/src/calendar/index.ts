export {
  checkCalendar,
  type CalendarFault,
  type CalendarFaultCode,
  type CheckedCalendar,
  type CheckedWindow,
} from './check-calendar.js';
export { daysToSameWeekday, moveBreak, movePeriod, nextYearName, sameDateNextYear } from './copy-year.js';
export { addDays, dayOrThrow, daysBetween, parseDay, type Day } from './day.js';
export { periodAlike, periodBeside } from './period-beside.js';
export { partCompleted, partOfPeriod, type PartOfPeriod } from './part-of-period.js';
export {
  isWithin,
  liesIn,
  ordinalOf,
  periodKinds,
  periodsWithin,
  yearOf,
  type Period,
  type PeriodKind,
} from './period.js';
export { minutesUntil } from './minutes-until.js';
export { moveEdge, type PeriodEdge } from './move-edge.js';
export { isPlaceholderDay } from './placeholder-day.js';
export { latePosters, windowState, type LatePosters, type PostingWindow, type WindowState } from './posting-window.js';
export { isYearLong, proposeYear, usualYear, yearDivisions, yearLength, type YearDivision } from './propose-year.js';
export { readTypedDay, type DayOrder, type TypedDay } from './read-typed-day.js';
export { readTypedTime } from './read-typed-time.js';
export { countInstructionalDays, daysOf, isInstructional, weekdayOf, type Break } from './school-days.js';
export { isNightlyDue } from './is-nightly-due.js';
export { localTime, type LocalTime } from './local-time.js';
