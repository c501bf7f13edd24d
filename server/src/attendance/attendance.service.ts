import { Injectable } from '@nestjs/common';
import { mayAt, ofSection } from '#core/access';
import { addDays, daysOf, isInstructional, parseDay, weekdayOf, type Day } from '#core/calendar';
import type { AttendanceListReply, RegisterReply, SaveRegistersRequest } from '#contract/attendance';
import { dayInWords } from '#contract/messages';
import { CalendarRepository, PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { Changes, revisionOf } from '#server/changes';
import { PeriodViews, type RunningSection } from '#server/period-view';
import {
  DistrictZone,
  intArray,
  personNameOf,
  Refusal,
  Transactions,
  type Actor,
  type FieldFault,
  type Queries,
} from '#server/platform';
import type { SchoolValue } from '#server/schools';
import { sql } from 'drizzle-orm';
import { AttendanceRepository, type RegisterValue } from './attendance.repository.js';
import { registerId } from './register-place.js';

/** A section in one of the periods that it runs in. */
interface SectionInPeriod {
  readonly sectionId: number;
  readonly periodId: number;
}

interface Ground {
  readonly period: SchoolPeriod;
  readonly section: RunningSection;
  readonly today: Day;
  readonly takesAttendance: boolean;
  /** The school days of the section in the period. */
  readonly days: readonly Day[];
}

/** Attendance by day: who came to a section. */
@Injectable()
export class AttendanceService {
  constructor(
    private readonly transactions: Transactions,
    private readonly attendance: AttendanceRepository,
    private readonly calendars: CalendarRepository,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly zone: DistrictZone,
    private readonly changes: Changes,
  ) {}

  /** The sections of a period whose attendance somebody may look at, and how far it is taken. */
  list(actor: Actor, periodId: number): Promise<AttendanceListReply> {
    return this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const { schoolId } = period;
      const { takesAttendance } = await this.calendars.schoolOrThrow(queries, schoolId);
      const today = await this.zone.today(queries);
      const view = await this.views.of(queries, period);
      const own = view.sections.filter((section) => mayAt(actor, 'read-grades', ofSection(schoolId, section)));
      const ids = own.map(({ id }) => id);
      const until = period.endsOn < today ? period.endsOn : today;
      const taken = await this.attendance.taken(queries, ids, { startsOn: period.startsOn, endsOn: until });
      const daysOfSection = await this.schoolDays(queries, period);
      const students = await this.staying(queries, ids);
      return {
        schoolId,
        takesAttendance,
        today,
        sections: own.map((section) => {
          const registers = taken.filter(({ sectionId }) => sectionId === section.id);
          return {
            sectionId: section.id,
            section: section.name,
            courseCode: section.course.code,
            teacher: section.teacher,
            students: students.get(section.id) ?? 0,
            days: daysOfSection(section).filter((day) => day <= today).length,
            taken: registers.length,
            lastTaken: registers.at(-1)?.day ?? null,
          };
        }),
      };
    });
  }

  /** The week of a section in which a day lies. @throws Refusal not-found, fields-wrong */
  week(actor: Actor, place: SectionInPeriod, day: string | undefined): Promise<RegisterReply> {
    const wanted = day === undefined ? undefined : parseDay(day);
    if (day !== undefined && !wanted)
      throw new Refusal('fields-wrong', {}, [{ field: 'day', detail: 'a day that exists, such as 2026-01-16' }]);
    return this.transactions.snapshot(async (queries) =>
      this.read(queries, actor, await this.groundOrThrow(queries, place), wanted),
    );
  }

  /** Takes registers, or takes them back: all of them, or none. @throws Refusal changed-meanwhile, fields-wrong */
  async save(actor: Actor, place: SectionInPeriod, { days }: SaveRegistersRequest): Promise<RegisterReply> {
    return this.transactions.run(async (queries) => {
      const ground = await this.groundOrThrow(queries, place);
      const faults = days.flatMap(({ day, absences }, at): FieldFault[] => {
        const wrong = !ground.days.includes(day)
          ? `a day with classes of ${ground.section.name}`
          : day > ground.today
            ? 'a day that has come'
            : undefined;
        const ids = (absences ?? []).map(({ enrollmentId }) => enrollmentId);
        return [
          ...(wrong ? [{ field: `days.${at}.day`, detail: wrong }] : []),
          ...(new Set(ids).size < ids.length
            ? [{ field: `days.${at}.absences`, detail: 'each student at most once' }]
            : []),
        ];
      });
      if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
      const edits = days.map(({ day, revision, absences }) => ({
        kind: 'register',
        id: registerId({ sectionId: place.sectionId, day }),
        expected: revision,
        after: absences && {
          absences: Object.fromEntries(absences.map(({ enrollmentId, kind }) => [enrollmentId, kind])),
        },
      }));
      const [only] = days;
      const on = days.length === 1 ? `on ${dayInWords(only!.day)}` : `on ${days.length} days`;
      await this.changes.make(queries, actor, { action: `take the attendance of ${ground.section.name} ${on}`, edits });
      return this.read(queries, actor, ground, only?.day);
    });
  }

  /** Whether a school takes attendance by day. What was taken stays. @throws Refusal not-found */
  async takes(actor: Actor, schoolId: number, takesAttendance: boolean): Promise<void> {
    await this.transactions.run(async (queries) => {
      const school = await this.changes.valueOf<SchoolValue>(queries, 'school', String(schoolId));
      if (!school) throw new Refusal('not-found', { what: 'school', id: schoolId });
      await this.changes.make(queries, actor, {
        action: `${takesAttendance ? 'begin' : 'stop'} taking attendance at ${school.shortName}`,
        edits: [
          { kind: 'school', id: String(schoolId), expected: revisionOf(school), after: { ...school, takesAttendance } },
        ],
      });
    });
  }

  private async groundOrThrow(queries: Queries, { sectionId, periodId }: SectionInPeriod): Promise<Ground> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const view = await this.views.of(queries, period);
    const section = view.sections.find(({ id }) => id === sectionId);
    if (!section) throw new Refusal('not-found', { what: `section in ${period.name}`, id: sectionId });
    const { takesAttendance } = await this.calendars.schoolOrThrow(queries, period.schoolId);
    const today = await this.zone.today(queries);
    return { period, section, today, takesAttendance, days: (await this.schoolDays(queries, period))(section) };
  }

  private async read(
    queries: Queries,
    actor: Actor,
    { period, section, today, takesAttendance, days }: Ground,
    wanted: Day | undefined,
  ): Promise<RegisterReply> {
    const usual = days.findLast((day) => day <= today) ?? days[0] ?? period.startsOn;
    const monday = mondayOf(wanted ?? usual);
    const week = days.filter((day) => mondayOf(day) === monday);
    const stretch = { startsOn: period.startsOn, endsOn: period.endsOn };
    const taken = await this.attendance.taken(queries, [section.id], stretch);
    const absences = await this.attendance.absences(queries, [section.id], stretch);
    const values = await this.attendance.values(
      queries,
      week.map((day) => registerId({ sectionId: section.id, day })),
    );
    const seats = (await this.attendance.seats(queries, [section.id])).filter(
      ({ startsOn, endsOn }) => startsOn <= period.endsOn && (endsOn === null || endsOn >= period.startsOn),
    );
    const summaries = await this.attendance.summaries(queries, [section.id], stretch);
    const names = await this.names(queries, section.id);
    const last = week.at(-1) ?? monday;
    return {
      sectionId: section.id,
      section: section.name,
      teacher: section.teacher,
      takesAttendance,
      mayTake: mayAt(actor, 'post-grades', ofSection(period.schoolId, section)),
      today,
      days: week.map((day) => {
        const register = taken.find((each) => each.day === day);
        const value: RegisterValue | undefined = values.get(registerId({ sectionId: section.id, day }));
        return { day, taken: register ? { by: register.by, at: register.at } : null, revision: revisionOf(value) };
      }),
      weekBefore: mondayOrNull(days.findLast((day) => day < monday)),
      weekAfter: mondayOrNull(days.find((day) => day > last && mondayOf(day) !== monday && day <= today)),
      students: seats
        .map((seat) => {
          const own = absences.filter(({ enrollmentId }) => enrollmentId === seat.enrollmentId);
          const summary = summaries.get(seat.enrollmentId)!;
          return {
            enrollmentId: seat.enrollmentId,
            student: names.get(seat.enrollmentId)!,
            enteredOn: seat.startsOn,
            withdrawnOn: seat.endsOn,
            absences: Object.fromEntries(own.map(({ day, kind }) => [day, kind])),
            missed: summary.daysMissed,
            of: summary.daysTaken,
          };
        })
        .toSorted((a, b) => a.student.localeCompare(b.student)),
    };
  }

  /** The school days of each section in a period. */
  private async schoolDays(queries: Queries, period: SchoolPeriod): Promise<(section: RunningSection) => Day[]> {
    const { weekdays } = await this.calendars.schoolOrThrow(queries, period.schoolId);
    const breaks = await this.calendars.breaksOf(queries, period.schoolId);
    const days = daysOf(period).filter((day) => isInstructional(day, weekdays, breaks));
    return ({ runs }) => days.filter((day) => runs.startsOn <= day && day <= runs.endsOn);
  }

  private async staying(queries: Queries, sectionIds: readonly number[]): Promise<ReadonlyMap<number, number>> {
    const { rows } = await queries.execute<{ id: number; count: number }>(sql`
      SELECT section_id AS id, count(*)::int AS count FROM enrollments
      WHERE section_id = ANY(${intArray(sectionIds)}) AND withdrawn_on IS NULL GROUP BY section_id`);
    return new Map(rows.map(({ id, count }) => [id, count]));
  }

  private async names(queries: Queries, sectionId: number): Promise<ReadonlyMap<number, string>> {
    const { rows } = await queries.execute<{ id: number; name: string }>(sql`
      SELECT e.id, ${personNameOf('p')} AS name FROM enrollments e JOIN people p ON p.id = e.student_id
      WHERE e.section_id = ${sectionId}`);
    return new Map(rows.map(({ id, name }) => [id, name]));
  }
}

const mondayOf = (day: Day) => addDays(day, 1 - weekdayOf(day));
const mondayOrNull = (day: Day | undefined) => (day === undefined ? null : mondayOf(day));
