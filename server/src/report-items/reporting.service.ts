import { Injectable } from '@nestjs/common';
import { and, asc, eq, gte, inArray, lte, sql } from 'drizzle-orm';
import type { Course } from '#core/courses';
import { coverage, isPostedIn, reportsItem } from '#core/report-items';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { CoursesRepository } from '#server/courses';
import { Refusal, tables, type Queries } from '#server/platform';
import { ReportItemsRepository, type KeptItem } from './report-items.repository.js';

/** An item that is reported in a period, and the sections that report it. */
export interface Reporting {
  readonly item: KeptItem;
  readonly sections: readonly ReportingSection[];
}

export interface ReportingSection {
  readonly id: number;
  readonly course: Course;
  /** Title of the course and number of the section, as people say it: "Tidal Ecology 3". */
  readonly name: string;
  readonly teacherId: number;
  readonly teacher: string;
  /** From the first to the last day of the section. */
  readonly runs: { readonly startsOn: string; readonly endsOn: string };
}

const { people, periods, sections } = tables;

/** Says what is expected: which sections report which item in a period, by the rules and exceptions. */
@Injectable()
export class ReportingService {
  constructor(
    private readonly items: ReportItemsRepository,
    private readonly courses: CoursesRepository,
    private readonly periods: PeriodsRepository,
  ) {}

  /** In the order of the report card; an item that no course reports is left out. */
  async inPeriod(queries: Queries, period: SchoolPeriod): Promise<Reporting[]> {
    const all = await this.periods.ofSchool(queries, period.schoolId);
    const items = (await this.items.ofSchool(queries, period.schoolId)).filter((item) => isPostedIn(item, all, period));
    if (items.length === 0) return [];
    const assignment = {
      rules: await this.items.rulesOfSchool(queries, period.schoolId),
      exceptions: await this.items.exceptionsOfSchool(queries, period.schoolId),
    };
    const covered = coverage(await this.courses.ofSchool(queries, period.schoolId), assignment);
    const reporting = covered.filter((course) => items.some(({ id }) => reportsItem(course, id)));
    const found = await this.sectionsOf(
      queries,
      period,
      reporting.map(({ course }) => course),
    );
    return items.flatMap((item) => {
      const own = new Set(covered.filter((course) => reportsItem(course, item.id)).map(({ course }) => course.id));
      return own.size > 0 ? [{ item, sections: found.filter(({ course }) => own.has(course.id)) }] : [];
    });
  }

  /** The reporting of one item. @throws Refusal not-found where the item is not reported in the period */
  async ofItemOrThrow(queries: Queries, period: SchoolPeriod, itemId: number): Promise<Reporting> {
    const found = (await this.inPeriod(queries, period)).find(({ item }) => item.id === itemId);
    if (!found) throw new Refusal('not-found', { what: `report item in ${period.name}`, id: itemId });
    return found;
  }

  private async sectionsOf(
    queries: Queries,
    period: SchoolPeriod,
    courses: readonly Course[],
  ): Promise<ReportingSection[]> {
    if (courses.length === 0) return [];
    const byId = new Map(courses.map((course) => [course.id, course]));
    const rows = await queries
      .select({
        id: sections.id,
        courseId: sections.courseId,
        number: sections.number,
        teacherId: sections.teacherId,
        teacher: sql<string>`${people.familyName} || ', ' || ${people.givenName}`,
        startsOn: sql<string>`coalesce(${sections.startsOn}, ${periods.startsOn})::text`,
        endsOn: sql<string>`coalesce(${sections.endsOn}, ${periods.endsOn})::text`,
      })
      .from(sections)
      .innerJoin(periods, eq(periods.id, sections.periodId))
      .innerJoin(people, eq(people.id, sections.teacherId))
      .where(
        and(
          inArray(sections.courseId, [...byId.keys()]),
          lte(periods.startsOn, period.startsOn),
          gte(periods.endsOn, period.endsOn),
        ),
      )
      .orderBy(asc(sections.courseId), asc(sections.number));
    return rows.map(({ courseId, number, startsOn, endsOn, ...section }) => {
      const course = byId.get(courseId)!;
      return { ...section, course, name: `${course.title} ${number}`, runs: { startsOn, endsOn } };
    });
  }
}
