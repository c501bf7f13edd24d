import { Injectable } from '@nestjs/common';
import { asc, eq, sql, type SQL } from 'drizzle-orm';
import { waysToCall } from '#core/people';
import type { NamedThing } from '#core/sections';
import { intArray, personName, studentNumber, tables, type Queries } from '#server/platform';

const { courses, people } = tables;

/** What the cells of sections and enrollments name: a school's courses, staff and students. */
@Injectable()
export class NamedThingsRepository {
  async courses(queries: Queries, schoolId: number): Promise<NamedThing[]> {
    const rows = await queries
      .select({ id: courses.id, title: courses.title, code: courses.code })
      .from(courses)
      .where(eq(courses.schoolId, schoolId))
      .orderBy(asc(courses.title), asc(courses.id));
    return rows.map(({ id, title, code }) => ({ id, names: [title], apart: code }));
  }

  /** A school's staff, those of no school, and whoever else teaches in it. */
  staff(queries: Queries, schoolId: number, teaching: readonly number[]): Promise<NamedThing[]> {
    return this.people(
      queries,
      sql`${people.kind} = 'staff' AND (${people.schoolId} = ${schoolId} OR ${people.schoolId} IS NULL
        OR ${people.id} = ANY(${intArray(teaching)}))`,
    );
  }

  /** A school's students, and whoever else sits in its sections. */
  students(queries: Queries, schoolId: number, seated: readonly number[]): Promise<NamedThing[]> {
    return this.people(
      queries,
      sql`${people.kind} = 'student' AND (${people.schoolId} = ${schoolId} OR ${people.id} = ANY(${intArray(seated)}))`,
    );
  }

  /** By name; two of one name are told apart by number, else by address. */
  private async people(queries: Queries, condition: SQL): Promise<NamedThing[]> {
    const { id, familyName, givenName, preferredName, email } = people;
    const rows = await queries
      .select({ id, familyName, givenName, preferredName, email, number: studentNumber, listed: personName })
      .from(people)
      .where(condition)
      .orderBy(asc(familyName), asc(givenName), asc(id));
    return rows.map(
      ({ id, email, number, listed, familyName: family, givenName: given, preferredName: preferred }) => ({
        id,
        names: [...waysToCall({ family, given, preferred }), email, number],
        apart: number || email,
        listed,
      }),
    );
  }
}
