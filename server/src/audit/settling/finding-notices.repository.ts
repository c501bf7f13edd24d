import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { findingKey, type FindingPlace } from '#core/audit';
import { instantText, intArray, nameOrderOf, spokenNameOf, tables, type Queries } from '#server/platform';

const { findingNotices } = tables;

/** A finding that a teacher is told of. */
export type NewNotice = typeof findingNotices.$inferInsert;

/** Whom a finding's section is taught by. */
export interface ToldTeacher {
  readonly sectionId: number;
  readonly id: number;
  readonly name: string;
  readonly address: string;
}

@Injectable()
export class FindingNoticesRepository {
  async add(queries: Queries, notices: readonly NewNotice[]): Promise<void> {
    if (notices.length > 0) await queries.insert(findingNotices).values([...notices]);
  }

  /** The last one of each finding of a period, by `findingKey`. */
  async ofPeriod(
    queries: Queries,
    periodId: number,
  ): Promise<ReadonlyMap<string, { readonly to: string; readonly at: Date }>> {
    const { rows } = await queries.execute<
      FindingPlace & { ruleId: string; to: string; at: string } & Record<string, unknown>
    >(sql`
      SELECT n.rule_id AS "ruleId", n.enrollment_id AS "enrollmentId", n.section_id AS "sectionId", n.course_id AS "courseId",
        n.item_id AS "itemId", ${spokenNameOf('p')} AS to, ${instantText('m.written_at')} AS at
      FROM finding_notices n JOIN people p ON p.id = n.teacher_id JOIN mails m ON m.id = n.mail_id
      WHERE n.period_id = ${periodId} ORDER BY n.id`);
    return new Map(rows.map(({ to, at, ...place }) => [findingKey(place), { to, at: new Date(at) }]));
  }

  /**
   * Who was told of findings of a period, by name: of how many, and when last.
   * @param courseIds of which courses; of all of the school where there are none
   */
  async toldIn(
    queries: Queries,
    periodId: number,
    courseIds: readonly number[],
  ): Promise<{ readonly to: string; readonly findings: number; readonly at: string }[]> {
    const { rows } = await queries.execute<{ to: string; findings: number; at: string }>(sql`
      SELECT ${spokenNameOf('p')} AS to, count(DISTINCT (n.rule_id, n.enrollment_id, n.section_id, n.course_id, n.item_id))::int AS findings,
        ${instantText('max(m.written_at)')} AS at
      FROM finding_notices n JOIN people p ON p.id = n.teacher_id JOIN mails m ON m.id = n.mail_id
      LEFT JOIN enrollments e ON e.id = n.enrollment_id LEFT JOIN sections s ON s.id = coalesce(n.section_id, e.section_id)
      WHERE n.period_id = ${periodId} AND (${courseIds.length === 0} OR coalesce(n.course_id, s.course_id) = ANY(${intArray(courseIds)}))
      GROUP BY p.id ORDER BY ${nameOrderOf('p')}, p.id`);
    return rows;
  }

  /** The teachers of some sections, by name. */
  async teachersOf(queries: Queries, sectionIds: readonly number[]): Promise<ToldTeacher[]> {
    const { rows } = await queries.execute<ToldTeacher & Record<string, unknown>>(sql`
      SELECT s.id AS "sectionId", p.id, ${spokenNameOf('p')} AS name, p.email AS address
      FROM sections s JOIN people p ON p.id = s.teacher_id
      WHERE s.id = ANY(${intArray(sectionIds)}) ORDER BY ${nameOrderOf('p')}, p.id`);
    return rows;
  }
}
