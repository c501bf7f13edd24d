import { Injectable } from '@nestjs/common';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { withInheritedFacts, type Course, type CourseDefaults, type OwnCourse } from '#core/courses';
import { decimalOrThrow, formatDecimal, type Decimal } from '#core/numbers';
import { Refusal, tables, type Queries } from '#server/platform';

/** A course as it is kept, with the version that guards against saving over somebody else's work. */
export interface KeptCourse extends OwnCourse {
  readonly version: number;
}

/** What hangs on a course. */
export interface CourseUse {
  readonly sections: number;
  readonly grades: number;
}

const { courseDefaults, courses } = tables;

@Injectable()
export class CoursesRepository {
  /** A school's courses by department and title, with their inherited facts filled in. */
  async ofSchool(queries: Queries, schoolId: number): Promise<Course[]> {
    const defaults = await this.defaultsOf(queries, schoolId);
    return (await this.keptOf(queries, schoolId)).map(({ version: _version, ...own }) =>
      withInheritedFacts(own, defaults),
    );
  }

  /** A school's courses as they are kept. */
  async keptOf(queries: Queries, schoolId: number): Promise<KeptCourse[]> {
    const rows = await queries
      .select()
      .from(courses)
      .where(eq(courses.schoolId, schoolId))
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
    return rows.map(({ department, credits, mostCredits, onTranscript, countsInGpa }) => ({
      department,
      credits: decimalOrNull(credits),
      mostCredits: decimalOrNull(mostCredits),
      onTranscript,
      countsInGpa,
    }));
  }

  /** Sections and posted grades of each course of a school that has any. */
  async usesOf(queries: Queries, schoolId: number): Promise<ReadonlyMap<number, CourseUse>> {
    const { rows } = await queries.execute<{ course_id: number; sections: number; grades: number }>(sql`
      SELECT s.course_id, count(DISTINCT s.id)::int AS sections, count(g.id)::int AS grades
      FROM courses c JOIN sections s ON s.course_id = c.id
      LEFT JOIN enrollments e ON e.section_id = s.id LEFT JOIN grades g ON g.enrollment_id = e.id
      WHERE c.school_id = ${schoolId} GROUP BY s.course_id`);
    return new Map(rows.map(({ course_id, ...use }) => [course_id, use]));
  }

  async add(queries: Queries, schoolId: number, facts: Omit<OwnCourse, 'id' | 'schoolId'>): Promise<number> {
    const [added] = await queries
      .insert(courses)
      .values({ ...rowOf(facts), schoolId })
      .returning({ id: courses.id });
    return added!.id;
  }

  /** Whether the course still had the version expected, and so was changed. */
  async change(
    queries: Queries,
    id: number,
    version: number,
    facts: Omit<OwnCourse, 'id' | 'schoolId'>,
  ): Promise<boolean> {
    const changed = await queries
      .update(courses)
      .set({ ...rowOf(facts), version: version + 1 })
      .where(and(eq(courses.id, id), eq(courses.version, version)))
      .returning({ id: courses.id });
    return changed.length === 1;
  }

  /** Takes courses out, with the exceptions and placements that speak of nothing else. */
  async remove(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    const { reportItemExceptions, scalePlacements } = tables;
    await queries.delete(reportItemExceptions).where(inArray(reportItemExceptions.courseId, [...ids]));
    await queries.delete(scalePlacements).where(inArray(scalePlacements.courseId, [...ids]));
    await queries.delete(courses).where(inArray(courses.id, [...ids]));
  }

  async replaceDefaults(queries: Queries, schoolId: number, defaults: readonly CourseDefaults[]): Promise<void> {
    await queries.delete(courseDefaults).where(eq(courseDefaults.schoolId, schoolId));
    const rows = defaults.map(({ department, onTranscript, countsInGpa, ...credits }) => ({
      schoolId,
      department,
      onTranscript,
      countsInGpa,
      credits: textOrNull(credits.credits),
      mostCredits: textOrNull(credits.mostCredits),
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

function rowOf({ credits, mostCredits, ...facts }: Omit<OwnCourse, 'id' | 'schoolId'>) {
  return { ...facts, credits: textOrNull(credits), mostCredits: textOrNull(mostCredits) };
}

function decimalOrNull(text: string | null): Decimal | null {
  return text === null ? null : decimalOrThrow(text);
}

function textOrNull(value: Decimal | null): string | null {
  return value && formatDecimal(value);
}
