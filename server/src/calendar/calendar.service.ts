import { Injectable } from '@nestjs/common';
import { mayAt, ofSchool } from '#core/access';
import { daysToSameWeekday, liesIn, moveBreak, movePeriod, type CalendarFault } from '#core/calendar';
import type { CalendarReply, CopyYearBody, SaveCalendarRequest, WindowBody } from '#contract/calendar';
import { Changes, revisionOf, type Edit } from '#server/changes';
import {
  DistrictZone,
  nextIds,
  Refusal,
  Transactions,
  type Actor,
  type FieldFault,
  type Queries,
} from '#server/platform';
import { CalendarChecks } from './calendar-checks.service.js';
import { valueOfCalendar, type CalendarBody } from './calendar-value.js';
import { CalendarRepository } from './calendar.repository.js';
import { PeriodsRepository } from './periods.repository.js';

@Injectable()
export class CalendarService {
  constructor(
    private readonly transactions: Transactions,
    private readonly calendar: CalendarRepository,
    private readonly periods: PeriodsRepository,
    private readonly zone: DistrictZone,
    private readonly checks: CalendarChecks,
    private readonly changes: Changes,
  ) {}

  /** The calendars of all schools that somebody may see, side by side. */
  async all(actor: Actor): Promise<CalendarReply[]> {
    return this.transactions.snapshot((queries) => this.within(queries, actor));
  }

  private async within(queries: Queries, actor: Actor): Promise<CalendarReply[]> {
    const replies: CalendarReply[] = [];
    for (const { id } of await this.periods.schools(queries))
      if (mayAt(actor, 'read-set-up', ofSchool(id))) replies.push(await this.ofSchool(queries, id));
    return replies;
  }

  async ofSchool(queries: Queries, schoolId: number): Promise<CalendarReply> {
    const { id, name, shortName, weekdays } = await this.calendar.schoolOrThrow(queries, schoolId);
    const facts = await this.calendar.factsOf(queries, id);
    const periods = await this.periods.ofSchool(queries, id);
    return {
      school: { id, name, shortName },
      revision: revisionOf(await this.calendar.valueOf(queries, id)),
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
    return this.checks.faultsOf(queries, schoolId, await this.calendar.valueOf(queries, schoolId));
  }

  /** Saves a whole calendar, or nothing of it. A sealed period keeps its days. */
  async save(actor: Actor, schoolId: number, { revision, ...body }: SaveCalendarRequest): Promise<CalendarReply> {
    return this.transactions.run(async (queries) => {
      const { shortName } = await this.calendar.schoolOrThrow(queries, schoolId);
      const edit = await this.edit(queries, schoolId, revision, body);
      await this.changes.make(queries, actor, { action: `save the calendar of ${shortName}`, edits: [edit] });
      return this.ofSchool(queries, schoolId);
    });
  }

  /** New periods get the numbers that they will have. */
  private async edit(queries: Queries, schoolId: number, expected: string, body: CalendarBody): Promise<Edit> {
    const before = await this.calendar.valueOf(queries, schoolId);
    refuseStrange(before, body);
    await this.checks.refuseUnfit(queries, schoolId, before, body);
    const added = body.periods.filter(({ id }) => id <= 0);
    const given = await nextIds(queries, 'periods', added.length);
    const numbers = new Map(added.map(({ id }, at) => [id, given[at]!]));
    const number = (id: number) => numbers.get(id) ?? id;
    const after = valueOfCalendar({
      ...body,
      periods: body.periods.map((period) => ({
        ...period,
        id: number(period.id),
        parentId: period.parentId === null ? null : number(period.parentId),
      })),
      windows: body.windows.map((window) => ({ ...window, periodId: number(window.periodId) })),
    });
    return { kind: 'calendar', id: String(schoolId), expected, after };
  }

  /**
   * Copies years with their periods, breaks and windows onto the next ones, those of several schools together or none;
   * every day keeps its day of the week.
   */
  async copyYears(actor: Actor, years: readonly CopyYearBody[]): Promise<CalendarReply[]> {
    return this.transactions.run(async (queries) => {
      const edits: Edit[] = [];
      for (const year of years) edits.push(await this.copyYear(queries, year));
      const action =
        years.length === 1 ? 'copy a year onto the next' : `copy the years of ${years.length} schools onto the next`;
      await this.changes.make(queries, actor, { action, edits });
      const copied: CalendarReply[] = [];
      for (const { schoolId } of years) copied.push(await this.ofSchool(queries, schoolId));
      return copied;
    });
  }

  private async copyYear(queries: Queries, request: CopyYearBody): Promise<Edit> {
    const { schoolId, revision, yearId, name, startsOn } = request;
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
    return this.edit(queries, schoolId, revision, {
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
}

/** A period that is said to be there and is not. @throws Refusal fields-wrong */
function refuseStrange(before: CalendarBody, { periods }: CalendarBody): void {
  const known = new Set(before.periods.map(({ id }) => id));
  const faults = periods.flatMap(({ id }, index): FieldFault[] =>
    id > 0 && !known.has(id) ? [{ field: `periods.${index}.id`, detail: 'a period of this school' }] : [],
  );
  if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
}
