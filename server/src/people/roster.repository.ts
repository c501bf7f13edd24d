import { Injectable } from '@nestjs/common';
import { asc, inArray, sql, type SQL } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import type { Person } from '#core/people';
import { countUses, intArray, studentNumber, tables, type Queries, type UseBy } from '#server/platform';

const { people } = tables;

/** A person with whose they are; null for one of the staff who belong to no school. */
export interface KeptPerson extends Person {
  readonly id: number;
  readonly schoolId: number | null;
  /** By which other systems know them; a roster's own, or one that was given to who was made here. */
  readonly sourcedId: string;
  readonly isMadeHere: boolean;
}

/** What keeps a person from being removed, or from being no student or none of the staff any more. */
export const personUses: readonly UseBy[] = [
  ['enrollments', 'student_id', 'section'],
  ['sections', 'teacher_id', 'section'],
  ['section_co_teachers', 'person_id', 'section'],
  ['transcript_entries', 'student_id', 'transcript entry'],
  ['platform_people', 'student_id', 'match'],
  ['accounts', 'person_id', 'account'],
  ['grades', 'posted_by', 'posted grade'],
  ['receipts', 'saved_by', 'receipt'],
  ['receipts', 'on_behalf_of', 'receipt'],
  ['sign_offs', 'signed_by', 'sign-off'],
  ['sign_offs', 'on_behalf_of', 'sign-off'],
  ['reminders', 'teacher_id', 'reminder'],
  ['reminders', 'sent_by', 'reminder'],
  ['registers', 'taken_by', 'register'],
  ['posting_requests', 'asked_by', 'request'],
  ['posting_requests', 'answered_by', 'request'],
  ['scale_versions', 'saved_by', 'version of a scale'],
  ['audit_runs', 'started_by', 'audit'],
  ['audit_tasks', 'started_by', 'audit'],
  ['nightly_audits', 'set_by', 'setting of the audit'],
  ['audit_certificates', 'issued_by', 'certificate'],
  ['waivers', 'waived_by', 'waiver'],
  ['finding_notices', 'teacher_id', 'message'],
  ['finding_notes', 'assigned_to', 'note'],
  ['finding_notes', 'noted_by', 'note'],
  ['seals', 'sealed_by', 'sealed period'],
  ['runs', 'started_by', 'run'],
  ['file_imports', 'read_by', 'file'],
  ['file_imports', 'asked_by', 'file'],
  ['file_imports', 'accepted_by', 'file'],
  ['exchange_imports', 'read_by', 'zip'],
  ['exchange_imports', 'accepted_by', 'zip'],
  ['mails', 'written_by', 'message'],
  ['merged_people', 'kept_id', 'merged record'],
];

/** Students and staff. */
@Injectable()
export class RosterRepository {
  /** A school's people, and staff of no school, by name. */
  ofSchool(queries: Queries, schoolId: number): Promise<KeptPerson[]> {
    return this.where(
      queries,
      sql`${people.schoolId} = ${schoolId} OR (${people.schoolId} IS NULL AND ${people.kind} = 'staff')`,
    );
  }

  byIds(queries: Queries, ids: readonly number[]): Promise<KeptPerson[]> {
    return this.where(queries, sql`${people.id} = ANY(${intArray(ids)})`);
  }

  private async where(queries: Queries, condition: SQL): Promise<KeptPerson[]> {
    const rows = await queries
      .select({ person: people, shownNumber: studentNumber })
      .from(people)
      .where(condition)
      .orderBy(asc(people.familyName), asc(people.givenName), asc(people.id));
    const dayOf = (text: string | null) => (text === null ? null : dayOrThrow(text));
    return rows.map(({ person: { createdAt: _createdAt, birthDate, enteredOn, leftOn, ...person }, shownNumber }) => ({
      ...person,
      number: shownNumber || null,
      birthDate: dayOf(birthDate),
      enteredOn: dayOf(enteredOn),
      leftOn: dayOf(leftOn),
    }));
  }

  /** How many sections each sits in or teaches, in whichever year; those who are in none are left out. */
  async sectionsOf(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, number>> {
    const uses = personUses.filter(([, , called]) => called === 'section');
    const found = await countUses(queries, uses, ids);
    return new Map([...found].map(([id, { section }]) => [id, section!]));
  }

  /** How many seats each of those who left has beyond their last day; those who have none are left out. */
  async seatsAfterLeaving(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, number>> {
    const { rows } = await queries.execute<{ id: number; count: number }>(sql`
      SELECT p.id, count(*)::int AS count FROM people p JOIN enrollments e ON e.student_id = p.id
      JOIN sections s ON s.id = e.section_id JOIN periods d ON d.id = s.period_id
      WHERE p.id = ANY(${intArray(ids)}) AND p.left_on < coalesce(s.ends_on, d.ends_on)
        AND (e.withdrawn_on IS NULL OR e.withdrawn_on > p.left_on) GROUP BY p.id`);
    return new Map(rows.map(({ id, count }) => [id, count]));
  }

  /** Keeps others from giving out numbers of students until the transaction ends. */
  async holdNumbers(queries: Queries): Promise<void> {
    await queries.execute(sql`SELECT pg_advisory_xact_lock(hashtext('numbers of students'))`);
  }

  /** Numbers that other students of the district have than those named. */
  async numbersOfOthers(queries: Queries, ids: readonly number[]): Promise<string[]> {
    const rows = await queries
      .select({ number: studentNumber })
      .from(people)
      .where(sql`${people.kind} = 'student' AND NOT ${people.id} = ANY(${intArray(ids)})`);
    return rows.map(({ number }) => number);
  }

  /** Makes and changes people. A number that is the roster's own id is none of its own. */
  async put(queries: Queries, kept: readonly KeptPerson[]): Promise<void> {
    if (kept.length === 0) return;
    const shape = sql`(id int, "sourcedId" text, "isMadeHere" boolean, "schoolId" int, kind text, number text, "givenName" text, "familyName" text, "preferredName" text, email text, "birthDate" date, "yearGroup" text, "enteredOn" date, "leftOn" date, pronoun text)`;
    await queries.execute(sql`
      INSERT INTO people (id, sourced_id, is_made_here, school_id, kind, number, given_name, family_name, preferred_name, email,
        birth_date, year_group, entered_on, left_on, pronoun)
      SELECT n.id, n."sourcedId", n."isMadeHere", n."schoolId", n.kind,
        CASE WHEN n."isMadeHere" THEN n.number ELSE nullif(n.number, n."sourcedId") END, n."givenName", n."familyName", n."preferredName",
        n.email, n."birthDate", n."yearGroup", n."enteredOn", n."leftOn", n.pronoun FROM jsonb_to_recordset(${JSON.stringify(kept)}::jsonb) AS n ${shape}
      ON CONFLICT (id) DO UPDATE SET kind = excluded.kind, number = excluded.number, given_name = excluded.given_name,
        family_name = excluded.family_name, preferred_name = excluded.preferred_name, email = excluded.email,
        birth_date = excluded.birth_date, year_group = excluded.year_group, entered_on = excluded.entered_on,
        left_on = excluded.left_on, pronoun = excluded.pronoun`);
  }

  async remove(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length > 0) await queries.delete(people).where(inArray(people.id, [...ids]));
  }
}
