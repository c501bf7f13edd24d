import { Injectable } from '@nestjs/common';
import {
  checkCalendar,
  daysToSameWeekday,
  liesIn,
  moveBreak,
  movePeriod,
  type CalendarFault,
  type CheckedWindow,
  type Day,
} from '#core/calendar';
import {
  calendarFaultSentence,
  type CalendarReply,
  type CopyYearBody,
  type SaveCalendarRequest,
  type WindowBody,
} from '#contract/calendar';
import { ChangeLog } from '#server/changes';
import { DistrictZone, Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { CalendarRepository } from './calendar.repository.js';
import { PeriodsRepository } from './periods.repository.js';

@Injectable()
export class CalendarService {
  constructor(
    private readonly transactions: Transactions,
    private readonly calendar: CalendarRepository,
    private readonly periods: PeriodsRepository,
    private readonly zone: DistrictZone,
    private readonly log: ChangeLog,
  ) {}

  /** The calendars of all schools, to be seen side by side. */
  async all(): Promise<CalendarReply[]> {
    const queries = this.transactions.reading;
    const replies: CalendarReply[] = [];
    for (const { id } of await this.periods.schools(queries)) replies.push(await this.ofSchool(queries, id));
    return replies;
  }

  async ofSchool(queries: Queries, schoolId: number): Promise<CalendarReply> {
    const { id, name, shortName, weekdays, calendarVersion } = await this.calendar.schoolOrThrow(queries, schoolId);
    const facts = await this.calendar.factsOf(queries, id);
    const periods = await this.periods.ofSchool(queries, id);
    return {
      school: { id, name, shortName },
      version: calendarVersion,
      weekdays,
      periods: periods.map(({ schoolId: _schoolId, ...period }) => {
        const { grades, sections, sealed } = facts.get(period.id)!;
        return { ...period, isSealed: sealed, postedGrades: grades, sections };
      }),
      breaks: await this.calendar.breaksOf(queries, id),
      windows: await this.calendar.windowsOf(queries, id),
      items: await this.calendar.itemsOf(queries, id),
      sections: await this.calendar.sectionsOf(queries, id),
    };
  }

  /** The faults of a school's calendar as it is saved. */
  async faultsOf(queries: Queries, schoolId: number): Promise<CalendarFault[]> {
    return this.check(queries, await this.ofSchool(queries, schoolId));
  }

  /** Saves a whole calendar, or nothing of it. A sealed period keeps its days. */
  async save(actor: Actor, schoolId: number, request: SaveCalendarRequest): Promise<CalendarReply> {
    return this.transactions.run((queries) => this.saveWithin(queries, actor, schoolId, request));
  }

  private async saveWithin(
    queries: Queries,
    actor: Actor,
    schoolId: number,
    request: SaveCalendarRequest,
  ): Promise<CalendarReply> {
    const before = await this.ofSchool(queries, schoolId);
    const { version, weekdays, periods, breaks, windows } = request;
    refuseUnknown(before, request);
    refuseSealed(before, request);
    const named = windows.map((window, index) => ({ ...window, id: index }));
    refuseFaults(
      await this.check(queries, { ...before, weekdays, periods: periods as never, breaks, windows: named }),
      request,
    );
    const kept = new Set(periods.map(({ id }) => id));
    const removed = before.periods.filter(({ id }) => !kept.has(id)).map(({ id }) => id);
    await this.refuseUsed(queries, removed);
    if (!(await this.calendar.raiseVersion(queries, schoolId, version, [...new Set(weekdays)].toSorted()))) {
      throw new Refusal('set-up-changed', { what: 'calendar' });
    }
    await this.calendar.removePeriods(queries, removed);
    const numbers = await this.calendar.writePeriods(queries, schoolId, periods);
    await this.calendar.replaceBreaks(queries, schoolId, breaks);
    const own = windows.map((window) => ({ ...window, periodId: numbers.get(window.periodId)! }));
    await this.calendar.replaceWindows(queries, [...numbers.values()], own);
    const after = await this.ofSchool(queries, schoolId);
    await this.log.record(queries, actor, [
      { action: 'save calendar', thing: `calendar ${schoolId}`, before: logged(before), after: logged(after) },
    ]);
    return after;
  }

  /**
   * Copies years with their periods, breaks and windows onto the next ones, those of several schools together or none;
   * every day keeps its day of the week.
   */
  async copyYears(actor: Actor, years: readonly CopyYearBody[]): Promise<CalendarReply[]> {
    return this.transactions.run(async (queries) => {
      const copied: CalendarReply[] = [];
      for (const year of years) copied.push(await this.copyYear(queries, actor, year));
      return copied;
    });
  }

  private async copyYear(queries: Queries, actor: Actor, request: CopyYearBody): Promise<CalendarReply> {
    const { schoolId, version, yearId, name, startsOn } = request;
    const before = await this.ofSchool(queries, schoolId);
    const year = before.periods.find(({ id, parentId }) => id === yearId && parentId === null);
    if (!year) throw new Refusal('not-found', { what: 'year', id: yearId });
    if (before.periods.some((period) => period.parentId === null && period.name.trim() === name.trim())) {
      throw new Refusal('year-exists', { name, school: before.school.shortName });
    }
    const days = daysToSameWeekday(year.startsOn, startsOn);
    const own = before.periods.filter((period) => liesIn(before.periods, period, year));
    const copies = own.map(({ id, parentId, ...period }) => ({
      ...movePeriod({ ...period, id, parentId }, days),
      id: -id,
      parentId: parentId === null ? null : -parentId,
      ...(id === yearId ? { name } : {}),
    }));
    const inYear = new Set(own.map(({ id }) => id));
    const breaks = before.breaks.filter((each) => year.startsOn <= each.startsOn && each.endsOn <= year.endsOn);
    const windows = before.windows.filter(({ periodId }) => inYear.has(periodId));
    return this.saveWithin(queries, actor, schoolId, {
      version,
      weekdays: [...before.weekdays],
      periods: [...before.periods, ...copies],
      breaks: [...before.breaks, ...breaks.map((each) => moveBreak(each, days))],
      windows: [...before.windows, ...(await this.moveWindows(queries, windows, days))],
    });
  }

  /** Windows moved by whole days at the same time of day, over a change to summer time too. */
  private async moveWindows(queries: Queries, windows: readonly WindowBody[], days: number): Promise<WindowBody[]> {
    const instants = windows.flatMap(({ opensAt, closesAt, graceUntil }) => [opensAt, closesAt, graceUntil ?? opensAt]);
    const moved = await this.zone.moveByDays(queries, instants, days);
    return windows.map((window, index) => ({
      ...window,
      periodId: -window.periodId,
      opensAt: moved[index * 3]!,
      closesAt: moved[index * 3 + 1]!,
      graceUntil: window.graceUntil === null ? null : moved[index * 3 + 2]!,
    }));
  }

  private async check(queries: Queries, calendar: CalendarReply): Promise<CalendarFault[]> {
    const instants = calendar.windows.flatMap(({ opensAt, closesAt }) => [opensAt, closesAt]);
    const days = await this.zone.daysOf(queries, instants);
    const windows = calendar.windows.map((window, index): CheckedWindow => ({
      ...window,
      itemName: calendar.items.find(({ id }) => id === window.itemId)?.name ?? '',
      opensOn: days[index * 2]!,
      closesOn: days[index * 2 + 1]!,
    }));
    const { weekdays, periods, breaks, sections } = calendar;
    return checkCalendar({ weekdays, periods, breaks, windows, sections });
  }

  private async refuseUsed(queries: Queries, removed: readonly number[]): Promise<void> {
    const [used] = await this.calendar.usesOf(queries, removed);
    if (!used) return;
    const instead = 'Change its name or days instead, or move what hangs on it first.';
    throw new Refusal('in-use', { what: 'The period', name: used.name, uses: used.uses, instead });
  }
}

/** What does not belong to this school's calendar. */
function refuseUnknown(before: CalendarReply, { periods, windows }: SaveCalendarRequest): void {
  const faults: FieldFault[] = [];
  const known = new Set(before.periods.map(({ id }) => id));
  const sent = new Set(periods.map(({ id }) => id));
  periods.forEach(({ id, parentId }, index) => {
    if (id > 0 && !known.has(id)) faults.push({ field: `periods.${index}.id`, detail: 'a period of this school' });
    if (parentId !== null && (!sent.has(parentId) || parentId === id)) {
      faults.push({ field: `periods.${index}.parentId`, detail: 'another period of this calendar' });
    }
  });
  const items = new Set(before.items.map(({ id }) => id));
  windows.forEach(({ itemId, periodId }, index) => {
    if (!items.has(itemId)) faults.push({ field: `windows.${index}.itemId`, detail: 'an item of this school' });
    if (!sent.has(periodId)) faults.push({ field: `windows.${index}.periodId`, detail: 'a period of this calendar' });
  });
  if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
}

function refuseSealed(before: CalendarReply, { periods }: SaveCalendarRequest): void {
  for (const sealed of before.periods.filter(({ isSealed }) => isSealed)) {
    const after = periods.find(({ id }) => id === sealed.id);
    if (after && (after.startsOn !== sealed.startsOn || after.endsOn !== sealed.endsOn)) {
      throw new Refusal('period-sealed', { period: sealed.name });
    }
  }
}

function refuseFaults(faults: readonly CalendarFault[], { periods, breaks }: SaveCalendarRequest): void {
  const blocking = faults.filter(({ severity }) => severity === 'blocks');
  const [first] = blocking;
  if (!first) return;
  const says = (fault: CalendarFault) => calendarFaultSentence(fault, (day) => day);
  const fields = blocking.map((fault) => {
    const lists = {
      period: ['periods', periods],
      break: ['breaks', breaks],
      window: ['windows', []],
      section: ['sections', []],
    } as const;
    const [list, bodies] = lists[fault.of];
    const at = fault.of === 'window' ? fault.id : bodies.findIndex(({ id }) => id === fault.id);
    return { field: `${list}.${at}`, detail: says(fault) };
  });
  throw new Refusal('calendar-faulty', { reason: says(first) }, fields);
}

/** What the log keeps of a calendar. */
function logged({ weekdays, periods, breaks, windows }: CalendarReply) {
  return {
    weekdays,
    periods: periods.map(({ name, startsOn, endsOn }: { name: string; startsOn: Day; endsOn: Day }) => [
      name,
      startsOn,
      endsOn,
    ]),
    breaks: breaks.map(({ name, startsOn, endsOn }) => [name, startsOn, endsOn]),
    windows: windows.map(({ itemId, periodId, opensAt, closesAt, graceUntil }) => [
      itemId,
      periodId,
      opensAt,
      closesAt,
      graceUntil,
    ]),
  };
}
