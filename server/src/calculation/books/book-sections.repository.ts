import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { SchoolPeriod } from '#server/calendar';
import { PeriodViews, type KeptPolicy, type PeriodView } from '#server/period-view';
import { Refusal, type Queries } from '#server/platform';

/** A section that runs in a period, and how full its grade book is. */
export interface BookSection {
  readonly id: number;
  /** Title of the course and number of the section. */
  readonly name: string;
  readonly courseId: number;
  readonly course: string;
  readonly department: string;
  readonly teacherId: number;
  readonly coTeacherIds: readonly number[];
  readonly teacher: string;
  /** How it is calculated; undefined where nobody set it. */
  readonly placed: KeptPolicy | undefined;
  readonly assignments: number;
  readonly scores: number;
}

/** Counts what is in the grade books of the sections that run in a period. */
@Injectable()
export class BookSectionsRepository {
  constructor(private readonly views: PeriodViews) {}

  /** The sections of a school that run in a period, by department and name. */
  async inPeriod(queries: Queries, period: SchoolPeriod): Promise<BookSection[]> {
    return this.ofView(queries, await this.views.of(queries, period));
  }

  async ofView(queries: Queries, { period, sections }: PeriodView): Promise<BookSection[]> {
    const counts = await this.countsIn(queries, period.id);
    const found = sections.map(({ id, name, course, teacherId, coTeacherIds, teacher, policy }): BookSection => ({
      id,
      name,
      courseId: course.id,
      course: course.title,
      department: course.department,
      teacherId,
      coTeacherIds,
      teacher,
      placed: policy,
      ...(counts.get(id) ?? { assignments: 0, scores: 0 }),
    }));
    const order = new Map(sections.map(({ id }, at) => [id, at]));
    return found.toSorted(
      (a, b) =>
        a.department.localeCompare(b.department) ||
        a.course.localeCompare(b.course) ||
        order.get(a.id)! - order.get(b.id)!,
    );
  }

  /** @throws Refusal not-found where the section does not run in the period */
  async oneOrThrow(queries: Queries, period: SchoolPeriod, sectionId: number): Promise<BookSection> {
    const found = (await this.inPeriod(queries, period)).find(({ id }) => id === sectionId);
    if (!found) throw new Refusal('not-found', { what: `section in ${period.name}`, id: sectionId });
    return found;
  }

  async isOfSchool(queries: Queries, schoolId: number, sectionId: number): Promise<boolean> {
    const { rows } = await queries.execute(sql`
      SELECT 1 FROM sections s JOIN courses c ON c.id = s.course_id WHERE s.id = ${sectionId} AND c.school_id = ${schoolId}`);
    return rows.length > 0;
  }

  private async countsIn(queries: Queries, periodId: number) {
    const { rows } = await queries.execute<{ id: number; assignments: number; scores: number }>(sql`
      SELECT a.section_id AS id, count(*)::int AS assignments, coalesce(sum(x.scores), 0)::int AS scores
      FROM assignments a LEFT JOIN LATERAL (SELECT count(*) AS scores FROM scores WHERE assignment_id = a.id) x ON true
      WHERE a.period_id = ${periodId} GROUP BY a.section_id`);
    return new Map(rows.map(({ id, ...counts }) => [id, counts]));
  }
}
