import { Injectable } from '@nestjs/common';
import { asc, eq, sql, type SQL } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import type { NamedThing, OwnEnrollment } from '#core/sections';
import { intArray, personName, studentNumber, tables, type Queries, type UseBy } from '#server/platform';

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
];

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

  /** The students of a school, and of no other who sit in its sections. */
  async studentsOf(queries: Queries, schoolId: number, seated: readonly number[]): Promise<NamedThing[]> {
    const rows = await queries
      .select({
        id: people.id,
        familyName: people.familyName,
        givenName: people.givenName,
        number: studentNumber,
        email: people.email,
      })
      .from(people)
      .where(
        sql`${people.kind} = 'student' AND (${people.schoolId} = ${schoolId} OR ${people.id} = ANY(${intArray(seated)}))`,
      )
      .orderBy(asc(people.familyName), asc(people.givenName), asc(people.id));
    return rows.map(({ id, familyName, givenName, number, email }) => ({
      id,
      names: [`${familyName}, ${givenName}`, `${givenName} ${familyName}`, email],
      apart: number,
    }));
  }

  /** Of some enrollments, those of no student, or of one who sits in that section already. */
  async strangers(queries: Queries, ids: readonly number[]): Promise<number[]> {
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT e.id FROM enrollments e JOIN people p ON p.id = e.student_id
      WHERE e.id = ANY(${intArray(ids)}) AND p.kind <> 'student' ORDER BY e.id`);
    return rows.map(({ id }) => id);
  }

  /** One that is there already under another number; undefined where none is. */
  async takenBeside(
    queries: Queries,
    kept: readonly (OwnEnrollment & { readonly id: number })[],
  ): Promise<{ readonly student: string } | undefined> {
    const { rows } = await queries.execute<{ student: string }>(sql`
      SELECT ${personName} AS student FROM jsonb_to_recordset(${JSON.stringify(kept)}::jsonb)
        AS n (id int, "sectionId" int, "studentId" int)
      JOIN enrollments e ON e.section_id = n."sectionId" AND e.student_id = n."studentId" AND e.id <> n.id
      JOIN people ON people.id = e.student_id ORDER BY 1 LIMIT 1`);
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
