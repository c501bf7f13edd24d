import { addDays, type Day } from './day.js';
import type { Period } from './period.js';
import { daysOf, isInstructional, type Break, type Weekdays } from './school-days.js';

export type CalendarFaultCode =
  | 'period-ends-before-start'
  | 'period-outside-parent'
  | 'periods-gap'
  | 'periods-overlap'
  | 'period-name-missing'
  | 'period-name-twice'
  | 'break-ends-before-start'
  | 'break-outside-year'
  | 'window-closes-before-opens'
  | 'window-grace-before-close'
  | 'window-before-end'
  | 'section-outside-period';

/** What is wrong with a calendar. `blocks` keeps it from being saved; `warns` is for the registrar to judge. */
export interface CalendarFault {
  readonly code: CalendarFaultCode;
  readonly severity: 'blocks' | 'warns';
  /** What the fault belongs to, by its number. */
  readonly of: 'period' | 'break' | 'window' | 'section';
  readonly id: number;
  readonly data: Readonly<Record<string, string>>;
}

export interface CheckedWindow {
  readonly id: number;
  readonly itemName: string;
  readonly periodId: number;
  /** Days in the district's zone, of opening, closing and the end of grace. */
  readonly opensOn: Day;
  readonly closesOn: Day;
  readonly opensAt: string;
  readonly closesAt: string;
  readonly graceUntil: string | null;
  /** Why it lies before the end of its period, empty where nobody said. */
  readonly earlyReason: string;
}

export interface CheckedSection {
  readonly id: number;
  readonly name: string;
  readonly periodId: number;
  readonly startsOn: Day;
  readonly endsOn: Day;
}

export interface CheckedCalendar {
  readonly weekdays: Weekdays;
  readonly periods: readonly Period[];
  readonly breaks: readonly Break[];
  readonly windows: readonly CheckedWindow[];
  readonly sections: readonly CheckedSection[];
}

/** The faults of a school's calendar, one or more years of it, in the order of periods, breaks, windows and sections. */
export function checkCalendar(calendar: CheckedCalendar): CalendarFault[] {
  const { periods, breaks, windows, sections } = calendar;
  return [
    ...periods.flatMap((period) => checkPeriod(periods, period)),
    ...checkYears(periods),
    ...periods.flatMap((period) => checkChildren(calendar, period)),
    ...breaks.flatMap((each) => checkBreak(periods, each)),
    ...windows.flatMap((window) => checkWindow(periods, window)),
    ...sections.flatMap((section) => checkSection(periods, section)),
  ];
}

function checkPeriod(periods: readonly Period[], period: Period): CalendarFault[] {
  const { id, name, startsOn, endsOn, parentId } = period;
  const faults: CalendarFault[] = [];
  const add = (code: CalendarFaultCode, data: Record<string, string>) =>
    faults.push({ code, severity: 'blocks', of: 'period', id, data: { name, ...data } });
  if (endsOn < startsOn) add('period-ends-before-start', { startsOn, endsOn });
  const parent = periods.find((each) => each.id === parentId);
  if (parent && (startsOn < parent.startsOn || endsOn > parent.endsOn)) {
    add('period-outside-parent', { parent: parent.name, from: parent.startsOn, to: parent.endsOn });
  }
  if (name.trim() === '') {
    add('period-name-missing', { kind: period.kind, from: startsOn, to: endsOn });
    return faults;
  }
  const siblings = periods.filter((each) => each.parentId === parentId && each.name.trim() === name.trim());
  if (siblings[0] && siblings[0].id !== id) add('period-name-twice', {});
  return faults;
}

/** Years that share days: whatever falls on such a day would belong to two of them. */
function checkYears(periods: readonly Period[]): CalendarFault[] {
  const years = periods
    .filter(({ parentId }) => parentId === null)
    .toSorted((a, b) => (a.startsOn < b.startsOn ? -1 : 1));
  return years.flatMap((year, at) => years.slice(0, at).flatMap((before) => overlapOf(before, year)));
}

function overlapOf(before: Period, period: Period): CalendarFault[] {
  if (period.startsOn > before.endsOn) return [];
  const to = before.endsOn < period.endsOn ? before.endsOn : period.endsOn;
  const data = { name: period.name, before: before.name, from: period.startsOn, to };
  return [{ code: 'periods-overlap', severity: 'blocks', of: 'period', id: period.id, data }];
}

/** Children that leave days with classes of their parent to nobody, or share days. The parent's edges count too. */
function checkChildren({ periods, weekdays, breaks }: CheckedCalendar, parent: Period): CalendarFault[] {
  const children = periods
    .filter(({ parentId }) => parentId === parent.id)
    .toSorted((a, b) => (a.startsOn < b.startsOn ? -1 : 1));
  const faults: CalendarFault[] = [];
  const gapOf = (from: Day, until: Day, child: Period, before: string) => {
    const days = daysOf({ startsOn: from, endsOn: until }).filter((day) => isInstructional(day, weekdays, breaks));
    if (days.length === 0) return;
    const data = { name: child.name, before, from: days[0]!, to: days.at(-1)! };
    faults.push({ code: 'periods-gap', severity: 'warns', of: 'period', id: child.id, data });
  };
  let next = parent.startsOn;
  for (const [index, child] of children.entries()) {
    const before = children[index - 1];
    if (child.startsOn > next) gapOf(next, addDays(child.startsOn, -1), child, before?.name ?? parent.name);
    if (before) faults.push(...overlapOf(before, child));
    if (child.endsOn >= next) next = addDays(child.endsOn, 1);
  }
  const last = children.at(-1);
  if (last && next <= parent.endsOn) gapOf(next, parent.endsOn, last, parent.name);
  return faults;
}

function checkBreak(periods: readonly Period[], { id, name, startsOn, endsOn }: Break): CalendarFault[] {
  const of = { severity: 'blocks', of: 'break', id } as const;
  if (endsOn < startsOn) return [{ code: 'break-ends-before-start', ...of, data: { name, startsOn, endsOn } }];
  const isInside = periods.some(
    (period) => period.parentId === null && period.startsOn <= startsOn && endsOn <= period.endsOn,
  );
  return isInside ? [] : [{ code: 'break-outside-year', ...of, data: { name, startsOn, endsOn } }];
}

function checkWindow(periods: readonly Period[], window: CheckedWindow): CalendarFault[] {
  const { id, itemName: item, opensAt, closesAt, graceUntil, closesOn, earlyReason } = window;
  const period = periods.find((each) => each.id === window.periodId);
  if (!period) return [];
  const data = { item, period: period.name };
  const of = { of: 'window', id } as const;
  if (Date.parse(closesAt) <= Date.parse(opensAt)) {
    return [{ code: 'window-closes-before-opens', severity: 'blocks', ...of, data }];
  }
  if (graceUntil && Date.parse(graceUntil) < Date.parse(closesAt)) {
    return [{ code: 'window-grace-before-close', severity: 'blocks', ...of, data }];
  }
  if (closesOn < period.endsOn && earlyReason.trim() === '') {
    const days = { closesOn, endsOn: period.endsOn };
    return [{ code: 'window-before-end', severity: 'warns', ...of, data: { ...data, ...days } }];
  }
  return [];
}

function checkSection(
  periods: readonly Period[],
  { id, name, periodId, startsOn, endsOn }: CheckedSection,
): CalendarFault[] {
  const period = periods.find((each) => each.id === periodId);
  if (period && period.startsOn <= startsOn && endsOn <= period.endsOn) return [];
  const data = { name, startsOn, endsOn, period: period?.name ?? '' };
  return [{ code: 'section-outside-period', severity: 'warns', of: 'section', id, data }];
}
