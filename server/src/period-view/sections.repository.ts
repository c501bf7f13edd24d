import { Injectable } from '@nestjs/common';
import { asc, eq } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import type { ItemWindow, SectionFact } from '#core/period-view';
import { coTeachersOf, personName, tables, type Queries } from '#server/platform';

const { courses, people, periods, postingWindows, sections } = tables;

/** Reads the sections of a school with the days they run, and its posting windows. */
@Injectable()
export class SectionsRepository {
  /** By course and number. */
  async ofSchool(queries: Queries, schoolId: number): Promise<SectionFact[]> {
    const rows = await queries
      .select({
        id: sections.id,
        courseId: sections.courseId,
        number: sections.number,
        teacherId: sections.teacherId,
        coTeacherIds: coTeachersOf('sections'),
        teacher: personName,
        ownStart: sections.startsOn,
        ownEnd: sections.endsOn,
        termStart: periods.startsOn,
        termEnd: periods.endsOn,
      })
      .from(sections)
      .innerJoin(courses, eq(courses.id, sections.courseId))
      .innerJoin(periods, eq(periods.id, sections.periodId))
      .innerJoin(people, eq(people.id, sections.teacherId))
      .where(eq(courses.schoolId, schoolId))
      .orderBy(asc(sections.courseId), asc(sections.number), asc(sections.id));
    return rows.map(({ ownStart, ownEnd, termStart, termEnd, ...section }) => ({
      ...section,
      term: { startsOn: dayOrThrow(termStart), endsOn: dayOrThrow(termEnd) },
      runs: { startsOn: dayOrThrow(ownStart ?? termStart), endsOn: dayOrThrow(ownEnd ?? termEnd) },
    }));
  }

  async windowsOf(queries: Queries, schoolId: number): Promise<ItemWindow[]> {
    const rows = await queries
      .select({ window: postingWindows })
      .from(postingWindows)
      .innerJoin(periods, eq(periods.id, postingWindows.periodId))
      .where(eq(periods.schoolId, schoolId));
    return rows.map(({ window: { itemId, periodId, opensAt, closesAt, graceUntil, latePosters } }) => ({
      itemId,
      periodId,
      latePosters,
      opensAt: opensAt.toISOString(),
      closesAt: closesAt.toISOString(),
      graceUntil: graceUntil?.toISOString() ?? null,
    }));
  }
}
