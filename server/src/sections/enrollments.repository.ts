import { Injectable } from '@nestjs/common';
import { asc, eq, sql, type SQL } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import type { OwnEnrollment } from '#core/sections';
import { intArray, personName, tables, type Queries, type UseBy } from '#server/platform';

const { enrollments, people } = tables;

export interface KeptEnrollment extends OwnEnrollment {
  readonly id: number;
  readonly student: string;
  /** Whether a roster brought it, by an id of its own. */
  readonly isOfRoster: boolean;
}

/** What keeps an enrollment from being removed. */
export const enrollmentUses: readonly UseBy[] = [
  ['grades', 'enrollment_id', 'posted grade'],
  ['scores', 'enrollment_id', 'score'],
  ['computed_grades', 'enrollment_id', 'computed percentage'],
  ['transcript_entries', 'enrollment_id', 'transcript entry'],
  ['audit_findings', 'enrollment_id', 'finding'],
  ['waivers', 'enrollment_id', 'waiver'],
  ['finding_notices', 'enrollment_id', 'message'],
  ['finding_notes', 'enrollment_id', 'note'],
  ['absences', 'enrollment_id', 'absence'],
  ['moved_work', 'to_id', 'move'],
  ['moved_work', 'from_id', 'move'],
];

/** Whether anything hangs on an enrollment that goes by this name in a query. */
export function isUsedOf(alias: string): SQL<boolean> {
  const uses = enrollmentUses.map(
    ([table, column]) =>
      sql`EXISTS (SELECT 1 FROM ${sql.identifier(table)} u WHERE u.${sql.identifier(column)} = ${sql.identifier(alias)}.id)`,
  );
  return sql`(${sql.join(uses, sql` OR `)})`;
}

/** Who sits in which section, from when to when. */
@Injectable()
export class EnrollmentsRepository {
  /** Of some sections, by name in each. */
  inSections(queries: Queries, sectionIds: readonly number[]): Promise<KeptEnrollment[]> {
    return this.where(queries, sql`${enrollments.sectionId} = ANY(${intArray(sectionIds)})`);
  }

  byIds(queries: Queries, ids: readonly number[]): Promise<KeptEnrollment[]> {
    return this.where(queries, sql`${enrollments.id} = ANY(${intArray(ids)})`);
  }

  private async where(queries: Queries, condition: SQL): Promise<KeptEnrollment[]> {
    const { id, sectionId, studentId, enteredOn, withdrawnOn } = enrollments;
    const isOfRoster = sql<boolean>`EXISTS (SELECT 1 FROM sourced_ids i WHERE i.kind = 'enrollment' AND i.our_id = ${id}
      AND i.sourced_id <> 'enrollment-' || ${id})`;
    const rows = await queries
      .select({ id, sectionId, studentId, enteredOn, withdrawnOn, student: personName, isOfRoster })
      .from(enrollments)
      .innerJoin(people, eq(people.id, studentId))
      .where(condition)
      .orderBy(asc(sectionId), asc(people.familyName), asc(people.givenName), asc(id));
    return rows.map((row) => ({
      ...row,
      enteredOn: dayOrThrow(row.enteredOn),
      withdrawnOn: row.withdrawnOn === null ? null : dayOrThrow(row.withdrawnOn),
    }));
  }

  /** Of some people, the first who is no student; undefined where all are. */
  async noStudent(queries: Queries, ids: readonly number[]): Promise<number | undefined> {
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT id FROM people WHERE id = ANY(${intArray(ids)}) AND kind <> 'student' ORDER BY id LIMIT 1`);
    return rows[0]?.id;
  }

  /** One that is there already under another number than those of the change; undefined where none is. */
  async takenBeside(
    queries: Queries,
    kept: readonly (OwnEnrollment & { readonly id: number })[],
    changed: readonly number[],
  ): Promise<{ readonly student: string } | undefined> {
    const { rows } = await queries.execute<{ student: string }>(sql`
      SELECT ${personName} AS student FROM jsonb_to_recordset(${JSON.stringify(kept)}::jsonb)
        AS n (id int, "sectionId" int, "studentId" int)
      JOIN enrollments e ON e.section_id = n."sectionId" AND e.student_id = n."studentId"
      JOIN people ON people.id = e.student_id WHERE NOT e.id = ANY(${intArray(changed)}) ORDER BY 1 LIMIT 1`);
    return rows[0];
  }

  async put(queries: Queries, kept: readonly (OwnEnrollment & { readonly id: number })[]): Promise<void> {
    if (kept.length === 0) return;
    await queries.execute(sql`
      INSERT INTO enrollments (id, section_id, student_id, entered_on, withdrawn_on)
      SELECT n.id, n."sectionId", n."studentId", n."enteredOn", n."withdrawnOn"
      FROM jsonb_to_recordset(${JSON.stringify(kept)}::jsonb)
        AS n (id int, "sectionId" int, "studentId" int, "enteredOn" date, "withdrawnOn" date)
      ON CONFLICT (id) DO UPDATE SET section_id = excluded.section_id, student_id = excluded.student_id,
        entered_on = excluded.entered_on, withdrawn_on = excluded.withdrawn_on`);
  }

  /** What was worked out for an enrollment that nothing hangs on is nothing. */
  async remove(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    await queries.execute(sql`DELETE FROM calculated_grades WHERE enrollment_id = ANY(${intArray(ids)})`);
    await queries.execute(sql`DELETE FROM enrollments WHERE id = ANY(${intArray(ids)})`);
  }
}
