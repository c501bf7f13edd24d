import { Injectable } from '@nestjs/common';
import { asc, eq, inArray, sql, type SQL } from 'drizzle-orm';
import { withInheritedFacts, type Course, type CourseDefaults, type OwnCourse } from '#core/courses';
import { decimalOrThrow, formatDecimal, type Decimal } from '#core/numbers';
import { intArray, Refusal, tables, type Queries } from '#server/platform';

/** What hangs on a course. */
export interface CourseUse {
  readonly title: string;
  readonly sections: number;
  readonly grades: number;
}

const { courseDefaults, courses } = tables;

@Injectable()
export class CoursesRepository {
  /** A school's courses by department and title, with their inherited facts filled in. */
  async ofSchool(queries: Queries, schoolId: number): Promise<Course[]> {
    const defaults = await this.defaultsOf(queries, schoolId);
    return (await this.ownOf(queries, schoolId)).map((own) => withInheritedFacts(own, defaults));
  }

  /** A school's courses with what each says itself. */
  ownOf(queries: Queries, schoolId: number): Promise<OwnCourse[]> {
    return this.where(queries, eq(courses.schoolId, schoolId));
  }

  byIds(queries: Queries, ids: readonly number[]): Promise<OwnCourse[]> {
    return this.where(queries, sql`${courses.id} = ANY(${intArray(ids)})`);
  }

  private async where(queries: Queries, condition: SQL): Promise<OwnCourse[]> {
    const rows = await queries
      .select()
      .from(courses)
      .where(condition)
      .orderBy(asc(courses.department), asc(courses.title), asc(courses.code));
    return rows.map(({ createdAt: _createdAt, credits, mostCredits, ...row }) => ({
      ...row,
      credits: decimalOrNull(credits),
      mostCredits: decimalOrNull(mostCredits),
    }));
  }

  async defaultsOf(queries: Queries, schoolId: number): Promise<CourseDefaults[]> {
    const rows = await queries
      .select()
      .from(courseDefaults)
      .where(eq(courseDefaults.schoolId, schoolId))
      .orderBy(asc(courseDefaults.department));
    return rows.map(({ department, credits, mostCredits, onTranscript, countsInGpa, allowsExempt }) => ({
      department,
      credits: decimalOrNull(credits),
      mostCredits: decimalOrNull(mostCredits),
      onTranscript,
      countsInGpa,
      allowsExempt,
    }));
  }

  /** Sections and posted grades of those courses that have any. */
  async usesOf(queries: Queries, courseIds: readonly number[]): Promise<ReadonlyMap<number, CourseUse>> {
    const { rows } = await queries.execute<{ id: number } & CourseUse & Record<string, unknown>>(sql`
      SELECT c.id, c.title, count(DISTINCT s.id)::int AS sections, count(g.id)::int AS grades
      FROM courses c JOIN sections s ON s.course_id = c.id
      LEFT JOIN enrollments e ON e.section_id = s.id LEFT JOIN grades g ON g.enrollment_id = e.id
      WHERE c.id = ANY(${intArray(courseIds)}) GROUP BY c.id`);
    return new Map(rows.map(({ id, ...use }) => [id, use]));
  }

  /** Makes and changes courses; two may exchange their codes. */
  async put(queries: Queries, own: readonly OwnCourse[]): Promise<void> {
    if (own.length === 0) return;
    const ids = intArray(own.map(({ id }) => id));
    await queries.execute(sql`UPDATE courses SET code = 'moving ' || id WHERE id = ANY(${ids})`);
    await queries
      .insert(courses)
      .values(
        own.map(({ credits, mostCredits, ...facts }) => ({
          ...facts,
          credits: textOrNull(credits),
          mostCredits: textOrNull(mostCredits),
        })),
      )
      .onConflictDoUpdate({
        target: courses.id,
        set: {
          code: sql`excluded.code`,
          title: sql`excluded.title`,
          department: sql`excluded.department`,
          kind: sql`excluded.kind`,
          level: sql`excluded.level`,
          length: sql`excluded.length`,
          credits: sql`excluded.credits`,
          mostCredits: sql`excluded.most_credits`,
          onTranscript: sql`excluded.on_transcript`,
          countsInGpa: sql`excluded.counts_in_gpa`,
          allowsExempt: sql`excluded.allows_exempt`,
        },
      });
  }

  async remove(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length > 0) await queries.delete(courses).where(inArray(courses.id, [...ids]));
  }

  async replaceDefaults(queries: Queries, schoolId: number, defaults: readonly CourseDefaults[]): Promise<void> {
    await queries.delete(courseDefaults).where(eq(courseDefaults.schoolId, schoolId));
    const rows = defaults.map(({ credits, mostCredits, ...facts }) => ({
      ...facts,
      schoolId,
      credits: textOrNull(credits),
      mostCredits: textOrNull(mostCredits),
    }));
    if (rows.length > 0) await queries.insert(courseDefaults).values(rows);
  }

  /** @throws Refusal not-found */
  async schoolOfOrThrow(queries: Queries, courseId: number): Promise<number> {
    const [row] = await queries.select({ schoolId: courses.schoolId }).from(courses).where(eq(courses.id, courseId));
    if (!row) throw new Refusal('not-found', { what: 'course', id: courseId });
    return row.schoolId;
  }
}

function decimalOrNull(text: string | null): Decimal | null {
  return text === null ? null : decimalOrThrow(text);
}

function textOrNull(value: Decimal | null): string | null {
  return value && formatDecimal(value);
}
