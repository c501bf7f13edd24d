import { Injectable } from '@nestjs/common';
import { asc, inArray, sql, type SQL } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import type { Person } from '#core/people';
import { intArray, tables, type Queries } from '#server/platform';

const { people } = tables;

/** A person with whose they are; null for one of the staff who belong to no school. */
export interface KeptPerson extends Person {
  readonly id: number;
  readonly schoolId: number | null;
  /** By which other systems know them; a roster's own, or one that was given to who was made here. */
  readonly sourcedId: string;
  readonly isMadeHere: boolean;
}

/** What hangs on a person. */
export interface PersonUse {
  readonly name: string;
  readonly sections: number;
  readonly taught: number;
  readonly accounts: number;
  readonly sealed: number;
}

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
      .select()
      .from(people)
      .where(condition)
      .orderBy(asc(people.familyName), asc(people.givenName), asc(people.id));
    return rows.map(({ createdAt: _createdAt, birthDate, ...person }) => ({
      ...person,
      number: numberOf(person),
      birthDate: birthDate === null ? null : dayOrThrow(birthDate),
    }));
  }

  /** Sections that each sits in or teaches, in whichever year. */
  async sectionsOf(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, number>> {
    const { rows } = await queries.execute<{ id: number; sections: number }>(sql`
      SELECT id, count(*)::int AS sections FROM (
        SELECT student_id AS id FROM enrollments UNION ALL SELECT teacher_id FROM sections
      ) AS named WHERE id = ANY(${intArray(ids)}) GROUP BY id`);
    return new Map(rows.map(({ id, sections }) => [id, sections]));
  }

  /** Of those on whom something hangs, what does. */
  async usesOf(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, PersonUse>> {
    const { rows } = await queries.execute<{ id: number } & PersonUse & Record<string, unknown>>(sql`
      SELECT * FROM (
        SELECT p.id, p.given_name || ' ' || p.family_name AS name,
          (SELECT count(*) FROM enrollments e WHERE e.student_id = p.id)::int AS sections,
          (SELECT count(*) FROM sections s WHERE s.teacher_id = p.id)::int AS taught,
          (SELECT count(*) FROM accounts a WHERE a.person_id = p.id)::int AS accounts,
          (SELECT count(*) FROM transcript_entries t WHERE t.student_id = p.id)::int AS sealed
        FROM people p WHERE p.id = ANY(${intArray(ids)})
      ) AS used WHERE sections + taught + accounts + sealed > 0`);
    return new Map(rows.map(({ id, ...use }) => [id, use]));
  }

  /** Keeps others from giving out numbers of students until the transaction ends. */
  async holdNumbers(queries: Queries): Promise<void> {
    await queries.execute(sql`SELECT pg_advisory_xact_lock(hashtext('numbers of students'))`);
  }

  /** Numbers that other students of the district have than those named. */
  async numbersOfOthers(queries: Queries, ids: readonly number[]): Promise<string[]> {
    const rows = await queries
      .select({ number: people.number, sourcedId: people.sourcedId, isMadeHere: people.isMadeHere })
      .from(people)
      .where(sql`${people.kind} = 'student' AND NOT ${people.id} = ANY(${intArray(ids)})`);
    return rows.map((row) => numberOf(row) ?? '');
  }

  /** Makes and changes people. A number that is the roster's own id is none of its own. */
  async put(queries: Queries, kept: readonly KeptPerson[]): Promise<void> {
    if (kept.length === 0) return;
    const shape = sql`(id int, "sourcedId" text, "isMadeHere" boolean, "schoolId" int, kind text, number text, "givenName" text, "familyName" text, email text, "birthDate" date, "yearGroup" text)`;
    await queries.execute(sql`
      INSERT INTO people (id, sourced_id, is_made_here, school_id, kind, number, given_name, family_name, email, birth_date, year_group)
      SELECT n.id, n."sourcedId", n."isMadeHere", n."schoolId", n.kind,
        CASE WHEN n."isMadeHere" THEN n.number ELSE nullif(n.number, n."sourcedId") END, n."givenName", n."familyName", n.email,
        n."birthDate", n."yearGroup" FROM jsonb_to_recordset(${JSON.stringify(kept)}::jsonb) AS n ${shape}
      ON CONFLICT (id) DO UPDATE SET kind = excluded.kind, number = excluded.number, given_name = excluded.given_name,
        family_name = excluded.family_name, email = excluded.email, birth_date = excluded.birth_date,
        year_group = excluded.year_group`);
  }

  async remove(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length > 0) await queries.delete(people).where(inArray(people.id, [...ids]));
  }
}

/** Their own number, or the id of the roster that brought them, where that is all there is. */
function numberOf({ number, sourcedId, isMadeHere }: Pick<KeptPerson, 'number' | 'sourcedId' | 'isMadeHere'>) {
  return number ?? (isMadeHere ? null : sourcedId);
}
