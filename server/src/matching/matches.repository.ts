import { Injectable } from '@nestjs/common';
import { and, asc, eq, isNull, ne, or, sql, type SQL } from 'drizzle-orm';
import type { Day } from '#core/calendar';
import type { MatchDecision, OurPerson, TheirPerson } from '#core/matching';
import type { MatchKind } from '#contract/matching';
import { intArray, tables, type Queries, sectionName, sectionNameOf, studentNumber } from '#server/platform';

const {
  bands,
  courses,
  enrollments,
  people,
  platformClasses,
  platformMembers,
  platformNames,
  platformPeople,
  scaleVersions,
  scales,
  sections,
} = tables;

/** What was decided about one thing, and what it is joined to. */
export interface Decided {
  readonly decision: MatchDecision;
  readonly target: string | null;
}

interface Place {
  readonly table: string;
  readonly column: string;
  readonly type: 'integer' | 'text';
  /** What one is called, in SQL. */
  readonly name: SQL;
  /** Whether other kinds stand in the same table. */
  readonly isName?: boolean;
}

/** Where each kind keeps what it is joined to. */
const places: Record<MatchKind, Place> = {
  class: { table: 'platform_classes', column: 'section_id', type: 'integer', name: sql`title` },
  person: {
    table: 'platform_people',
    column: 'student_id',
    type: 'integer',
    name: sql<string>`${platformPeople.familyName} || ', ' || ${platformPeople.givenName}`,
  },
  group: { table: 'platform_names', column: 'category_id', type: 'integer', name: sql`name`, isName: true },
  total: { table: 'platform_names', column: 'item_id', type: 'integer', name: sql`name`, isName: true },
  letter: { table: 'platform_names', column: 'label', type: 'text', name: sql`name`, isName: true },
};

/** A student with the number that lists show them by. */
export interface ListedStudent extends OurPerson {
  readonly shownNumber: string;
}

@Injectable()
export class MatchesRepository {
  async classes(queries: Queries, platformId: number) {
    return queries
      .select()
      .from(platformClasses)
      .where(and(eq(platformClasses.platformId, platformId), eq(platformClasses.isGone, false)))
      .orderBy(asc(platformClasses.title), asc(platformClasses.id));
  }

  async people(queries: Queries, platformId: number) {
    return queries
      .select()
      .from(platformPeople)
      .where(and(eq(platformPeople.platformId, platformId), eq(platformPeople.isGone, false)))
      .orderBy(asc(platformPeople.familyName), asc(platformPeople.givenName), asc(platformPeople.id));
  }

  /** Who is in which class, by our number where it is known. */
  async members(queries: Queries, platformId: number) {
    return queries
      .select({
        classId: platformMembers.classId,
        personId: platformMembers.personId,
        studentId: platformPeople.studentId,
      })
      .from(platformMembers)
      .innerJoin(platformPeople, eq(platformPeople.id, platformMembers.personId))
      .where(eq(platformPeople.platformId, platformId));
  }

  /** The names that classes use, but for those of classes that are left out or gone. */
  async names(queries: Queries, platformId: number) {
    const rows = await queries
      .select({ name: platformNames })
      .from(platformNames)
      .leftJoin(platformClasses, eq(platformClasses.id, platformNames.classId))
      .where(
        and(
          eq(platformNames.platformId, platformId),
          eq(platformNames.isGone, false),
          or(
            isNull(platformClasses.id),
            and(eq(platformClasses.isGone, false), ne(platformClasses.decision, 'ignored')),
          ),
        ),
      )
      .orderBy(asc(platformNames.id));
    return rows.map(({ name }) => name);
  }

  /** The sections of a school with the students who have not left them. */
  async sections(queries: Queries, schoolId: number) {
    return queries
      .select({
        id: sections.id,
        name: sectionName,
        code: sql<string>`${courses.code} || '-' || ${sections.number}`,
        students: sql<
          number[]
        >`coalesce(array_agg(${enrollments.studentId}) FILTER (WHERE ${enrollments.id} IS NOT NULL), '{}')`,
      })
      .from(sections)
      .innerJoin(courses, eq(courses.id, sections.courseId))
      .leftJoin(enrollments, and(eq(enrollments.sectionId, sections.id), isNull(enrollments.withdrawnOn)))
      .where(eq(courses.schoolId, schoolId))
      .groupBy(sections.id, courses.id)
      .orderBy(asc(courses.title), asc(sections.number));
  }

  async students(queries: Queries): Promise<ListedStudent[]> {
    return queries
      .select({
        id: people.id,
        sourcedId: people.sourcedId,
        number: people.number,
        shownNumber: studentNumber,
        email: people.email,
        givenName: people.givenName,
        familyName: people.familyName,
        birthDate: people.birthDate,
      })
      .from(people)
      .where(eq(people.kind, 'student')) as Promise<ListedStudent[]>;
  }

  /** The labels of the scales that a school may use, each once. */
  async labels(queries: Queries, schoolId: number): Promise<string[]> {
    const rows = await queries
      .selectDistinct({ label: bands.label })
      .from(bands)
      .innerJoin(scaleVersions, eq(scaleVersions.id, bands.versionId))
      .innerJoin(scales, eq(scales.id, scaleVersions.scaleId))
      .where(or(eq(scales.schoolId, schoolId), isNull(scales.schoolId)))
      .orderBy(asc(bands.label));
    return rows.map(({ label }) => label);
  }

  /** What the same names were joined to on every platform of a school. */
  async earlierChoices(queries: Queries, schoolId: number) {
    const { rows } = await queries.execute<{ kind: string; name: string; key: string; times: number }>(sql`
      SELECT n.kind, n.name, coalesce(n.category_id::text, n.item_id::text, n.label) AS key, count(*)::int AS times
      FROM platform_names n JOIN learning_platforms p ON p.id = n.platform_id
      WHERE p.school_id = ${schoolId} AND n.decision = 'joined'
      GROUP BY n.kind, n.name, 3`);
    return rows;
  }

  /** What is decided about some things of a kind; those that are not the platform's are missing. */
  async decidedAbout(
    queries: Queries,
    platformId: number,
    kind: MatchKind,
    ids: readonly number[],
  ): Promise<ReadonlyMap<number, Decided>> {
    const { table, column, isName } = places[kind];
    const isKind = isName ? sql`AND kind = ${kind}` : sql``;
    const { rows } = await queries.execute<{ id: number; decision: MatchDecision; target: string | null }>(sql`
      SELECT id, decision, ${sql.identifier(column)}::text AS target FROM ${sql.identifier(table)}
      WHERE platform_id = ${platformId} AND id = ANY (${intArray(ids)}) ${isKind}`);
    return new Map(rows.map(({ id, decision, target }) => [id, { decision, target }]));
  }

  /** What things of a kind are called there. */
  async namesOf(queries: Queries, kind: MatchKind, ids: readonly number[]): Promise<ReadonlyMap<number, string>> {
    const { table, name } = places[kind];
    const { rows } = await queries.execute<{ id: number; name: string }>(sql`
      SELECT id, ${name} AS name FROM ${sql.identifier(table)} WHERE id = ANY (${intArray(ids)})`);
    return new Map(rows.map(({ id, name: own }) => [id, own]));
  }

  /** Writes what was decided, set by set. */
  async write(queries: Queries, kind: MatchKind, changes: readonly { id: number; after: Decided }[]): Promise<void> {
    const { table, column, type } = places[kind];
    const rows = changes.map(({ id, after }) => ({ id, ...after }));
    await queries.execute(sql`
      UPDATE ${sql.identifier(table)} t
      SET decision = r.decision, ${sql.identifier(column)} = r.target::${sql.raw(type)}
      FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) AS r (id int, decision text, target text)
      WHERE t.id = r.id`);
  }

  /** A section that two classes of the platform are joined to. */
  async joinedTwice(queries: Queries, platformId: number) {
    const { rows } = await queries.execute<{ section: string; titles: string[] }>(sql`
      SELECT ${sectionNameOf('co', 's')} AS section, array_agg(c.title ORDER BY c.id) AS titles
      FROM platform_classes c JOIN sections s ON s.id = c.section_id JOIN courses co ON co.id = s.course_id
      WHERE c.platform_id = ${platformId} AND c.decision = 'joined' AND NOT c.is_gone
      GROUP BY s.id, co.title, s.number HAVING count(*) > 1 LIMIT 1`);
    return rows[0];
  }
}

/** Somebody on a platform, as matching takes them. */
export function theirPerson({ identifier, email, givenName, familyName, birthDate }: TheirRow): TheirPerson {
  return { identifier, email, givenName, familyName, birthDate: birthDate as Day | null };
}

type TheirRow = Awaited<ReturnType<MatchesRepository['people']>>[number];
