import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
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
    return this.find(queries, period, sql`true`);
  }

  /** Those of one course. */
  async ofCourse(queries: Queries, period: SchoolPeriod, courseId: number): Promise<BookSection[]> {
    return this.find(queries, period, sql`c.id = ${courseId}`);
  }

  /** @throws Refusal not-found where the section does not run in the period */
  async oneOrThrow(queries: Queries, period: SchoolPeriod, sectionId: number): Promise<BookSection> {
    const [found] = await this.find(queries, period, sql`s.id = ${sectionId}`);
    if (!found) throw new Refusal('not-found', { what: `section in ${period.name}`, id: sectionId });
    return found;
  }

  async isOfSchool(queries: Queries, schoolId: number, sectionId: number): Promise<boolean> {
    const { rows } = await queries.execute(sql`
      SELECT 1 FROM sections s JOIN courses c ON c.id = s.course_id WHERE s.id = ${sectionId} AND c.school_id = ${schoolId}`);
    return rows.length > 0;
  }

  private async find(queries: Queries, period: SchoolPeriod, which: SQL): Promise<BookSection[]> {
    const { rows } = await queries.execute<BookSection>(sql`
      SELECT s.id, c.title || ' ' || s.number AS name, c.id AS "courseId", c.title AS course, c.department,
             s.teacher_id AS "teacherId", t.family_name || ', ' || t.given_name AS teacher,
             coalesce(b.assignments, 0) AS assignments, coalesce(b.scores, 0) AS scores
      FROM sections s
      JOIN courses c ON c.id = s.course_id
      JOIN periods p ON p.id = s.period_id
      JOIN people t ON t.id = s.teacher_id
      LEFT JOIN LATERAL (
        SELECT count(DISTINCT a.id)::int AS assignments, count(x.assignment_id)::int AS scores
        FROM assignments a LEFT JOIN scores x ON x.assignment_id = a.id
        WHERE a.section_id = s.id AND a.period_id = ${period.id}
      ) b ON true
      WHERE ${which} AND c.school_id = ${period.schoolId} AND p.starts_on <= ${period.startsOn} AND p.ends_on >= ${period.endsOn}
      ORDER BY c.department, c.title, s.number, s.id`);
    return rows;
  }
}
