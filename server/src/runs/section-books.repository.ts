import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow, formatAtLeast } from '#core/numbers';
import type { Mark } from '#core/posting';
import type { BookItem } from '#core/report-items';
import { bookKey, type OurAssignment, type OurScore, type OurSectionBook, type OurStudent } from '#core/runs';
import type { SchoolPeriod } from '#server/calendar';
import { personNameOf, type Queries } from '#server/platform';
import { GradeRowsRepository } from '#server/grade-rows';

type Marks = ReadonlyMap<number, { readonly mark: Mark; readonly isOurs: boolean }>;

/** What a section's book and sheets hold, as a run compares it with what a platform tells. */
@Injectable()
export class SectionBooksRepository {
  constructor(private readonly grades: GradeRowsRepository) {}

  async book(
    queries: Queries,
    platformId: number,
    classId: number,
    sectionId: number,
    period: SchoolPeriod,
  ): Promise<Omit<OurSectionBook, 'items'>> {
    return {
      students: await this.students(queries, sectionId, period),
      assignments: await this.assignments(queries, { platformId, classId }, sectionId, period.id),
      scores: await this.scores(queries, sectionId, period.id),
      removedKeys: await this.removedKeys(queries, platformId, classId),
    };
  }

  /** What is posted for an item, by enrollment. */
  async marks(queries: Queries, item: BookItem, sectionId: number, period: SchoolPeriod): Promise<Marks> {
    const rows = await this.grades.ofSections(queries, item, period, [sectionId]);
    return new Map(
      rows.map(({ enrollmentId, mark, version, carriedVersion }) => [
        enrollmentId,
        { mark, isOurs: version !== carriedVersion },
      ]),
    );
  }

  /** By the student's number; those who left before the period or came after it are not there. */
  private async students(
    queries: Queries,
    sectionId: number,
    { startsOn, endsOn }: SchoolPeriod,
  ): Promise<ReadonlyMap<number, OurStudent>> {
    const { rows } = await queries.execute<{
      studentId: number;
      enrollmentId: number;
      name: string;
      withdrawnOn: string | null;
    }>(sql`
      SELECT e.student_id AS "studentId", e.id AS "enrollmentId", ${personNameOf('s')} AS name,
             CASE WHEN e.withdrawn_on <= ${endsOn} THEN e.withdrawn_on END::text AS "withdrawnOn"
      FROM enrollments e JOIN people s ON s.id = e.student_id
      WHERE e.section_id = ${sectionId} AND e.entered_on <= ${endsOn}
        AND (e.withdrawn_on IS NULL OR e.withdrawn_on >= ${startsOn})`);
    return new Map(
      rows.map(({ studentId, withdrawnOn, ...student }) => [
        studentId,
        { ...student, withdrawnOn: withdrawnOn === null ? null : dayOrThrow(withdrawnOn) },
      ]),
    );
  }

  private async assignments(
    queries: Queries,
    { platformId, classId }: { readonly platformId: number; readonly classId: number },
    sectionId: number,
    periodId: number,
  ): Promise<OurAssignment[]> {
    const { rows } = await queries.execute<{
      id: number;
      key: string | null;
      name: string;
      possible: string;
      dueOn: string;
      categoryId: number;
      givenTo: number[] | null;
      isExtra: boolean;
      isOurs: boolean;
      isOfClass: boolean;
    }>(sql`
      SELECT a.id, o.column_key AS key, coalesce(o.class_id = ${classId}, false) AS "isOfClass", a.name, trim_scale(a.possible)::text AS possible, a.due_on::text AS "dueOn",
             a.category_id AS "categoryId", a.given_to AS "givenTo", a.is_extra AS "isExtra",
             a.version IS DISTINCT FROM a.carried_version AS "isOurs"
      FROM assignments a LEFT JOIN assignment_origins o ON o.assignment_id = a.id AND o.platform_id = ${platformId}
      WHERE a.section_id = ${sectionId} AND a.period_id = ${periodId} ORDER BY a.id`);
    return rows.map(({ id, key, isOfClass, isExtra, isOurs, dueOn, givenTo, ...facts }) => ({
      id,
      key,
      isOfClass,
      isExtra,
      isOurs,
      facts: { ...facts, dueOn: dayOrThrow(dueOn), givenTo: givenTo && givenTo.toSorted((a, b) => a - b) },
    }));
  }

  private async scores(queries: Queries, sectionId: number, periodId: number): Promise<ReadonlyMap<string, OurScore>> {
    const { rows } = await queries.execute<{
      assignmentId: number;
      enrollmentId: number;
      points: string | null;
      flag: OurScore['facts']['flag'];
      isOurs: boolean;
    }>(sql`
      SELECT x.assignment_id AS "assignmentId", x.enrollment_id AS "enrollmentId", x.points::text, x.flag,
             x.version IS DISTINCT FROM x.carried_version AS "isOurs"
      FROM assignments a JOIN scores x ON x.assignment_id = a.id
      WHERE a.section_id = ${sectionId} AND a.period_id = ${periodId}`);
    return new Map(
      rows.map(({ assignmentId, enrollmentId, points, flag, isOurs }) => [
        bookKey(assignmentId, enrollmentId),
        { facts: { points: points === null ? null : formatAtLeast(decimalOrThrow(points), 0), flag }, isOurs },
      ]),
    );
  }

  private async removedKeys(queries: Queries, platformId: number, classId: number): Promise<ReadonlySet<string>> {
    const { rows } = await queries.execute<{ key: string }>(sql`
      SELECT column_key AS key FROM assignment_origins
      WHERE platform_id = ${platformId} AND class_id = ${classId} AND assignment_id IS NULL`);
    return new Set(rows.map(({ key }) => key));
  }
}
