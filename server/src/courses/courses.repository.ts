import { Injectable } from '@nestjs/common';
import { asc, eq } from 'drizzle-orm';
import type { Course } from '#core/courses';
import { decimalOrThrow } from '#core/numbers';
import { tables, type Queries } from '#server/platform';

@Injectable()
export class CoursesRepository {
  /** A school's courses by department and title. */
  async ofSchool(queries: Queries, schoolId: number): Promise<Course[]> {
    const { courses } = tables;
    const rows = await queries
      .select()
      .from(courses)
      .where(eq(courses.schoolId, schoolId))
      .orderBy(asc(courses.department), asc(courses.title), asc(courses.code));
    return rows.map(courseOfRow);
  }
}

function courseOfRow({ createdAt: _createdAt, credits, ...row }: typeof tables.courses.$inferSelect): Course {
  return { ...row, credits: decimalOrThrow(credits) };
}
