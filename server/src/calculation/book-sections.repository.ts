import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { SchoolPeriod } from '#server/calendar';
import { Refusal, type Queries } from '#server/platform';

/** A section that runs in a period, and how full its grade book is. */
export interface BookSection extends Record<string, unknown> {
  readonly id: number;
  /** Title of the course and number of the section. */
  readonly name: string;
  readonly courseId: number;
  readonly course: string;
  readonly department: string;
  readonly teacherId: number;
  readonly teacher: string;
  readonly assignments: number;
  readonly scores: number;
}

@Injectable()
export class BookSectionsRepository {
  /** The sections of a school that run through a whole period, by department and name. */
  async inPeriod(queries: Queries, period: SchoolPeriod): Promise<BookSection[]> {
    const { rows } = await queries.execute<BookSection>(sql`
      SELECT s.id, c.title || ' ' || s.number AS name, c.id AS "courseId", c.title AS course, c.department,
             s.teacher_id AS "teacherId", t.family_name || ', ' || t.given_name AS teacher,
             coalesce(b.assignments, 0) AS assignments, coalesce(b.scores, 0) AS scores
      FROM sections s
      JOIN courses c ON c.id = s.course_id
      JOIN periods p ON p.id = s.period_id
      JOIN people t ON t.id = s.teacher_id
      LEFT JOIN (
        SELECT a.section_id, count(DISTINCT a.id)::int AS assignments, count(x.assignment_id)::int AS scores
        FROM assignments a LEFT JOIN scores x ON x.assignment_id = a.id
        WHERE a.period_id = ${period.id} GROUP BY a.section_id
      ) b ON b.section_id = s.id
      WHERE c.school_id = ${period.schoolId} AND p.starts_on <= ${period.startsOn} AND p.ends_on >= ${period.endsOn}
      ORDER BY c.department, c.title, s.number, s.id`);
    return rows;
  }

  /** @throws Refusal not-found where the section does not run in the period */
  async oneOrThrow(queries: Queries, period: SchoolPeriod, sectionId: number): Promise<BookSection> {
    const found = (await this.inPeriod(queries, period)).find(({ id }) => id === sectionId);
    if (!found) throw new Refusal('not-found', { what: `section in ${period.name}`, id: sectionId });
    return found;
  }
}
