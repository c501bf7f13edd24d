import { Injectable } from '@nestjs/common';
import { and, asc, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { AssignmentReply, ScoreReply } from '#contract/calculation';
import { decimalOrThrow, formatAtLeast } from '#core/numbers';
import { intArray, Refusal, tables, type Queries, nameOrderOf, personNameOf, studentNumberOf } from '#server/platform';
import type { AssignmentValue } from './assignment.thing.js';

const { assignments, scores, sections } = tables;

export type NumberedAssignment = AssignmentValue & { readonly id: number };

/** Each fact of an assignment as the statement has it that would make it anew. */
const asGiven = {
  sectionId: sql`excluded.section_id`,
  periodId: sql`excluded.period_id`,
  categoryId: sql`excluded.category_id`,
  name: sql`excluded.name`,
  possible: sql`excluded.possible`,
  dueOn: sql`excluded.due_on`,
  isExtra: sql`excluded.is_extra`,
  isCounted: sql`excluded.is_counted`,
  isPublished: sql`excluded.is_published`,
  givenTo: sql`excluded.given_to`,
} satisfies Record<keyof AssignmentValue, SQL>;

/** A student on the list of a grade book, with what is posted for one item. */
export interface BookStudent extends Record<string, unknown> {
  readonly enrollmentId: number;
  readonly studentId: number;
  readonly student: string;
  readonly studentNumber: string;
  readonly withdrawnOn: string | null;
  readonly percent: string | null;
  readonly mark: string | null;
}

/** Reads and writes one grade book: the assignments and scores of a section in a period. */
@Injectable()
export class BooksRepository {
  /** In the order of their due dates. */
  async assignmentsOf(queries: Queries, sectionId: number, periodId: number): Promise<AssignmentReply[]> {
    const rows = await queries
      .select()
      .from(assignments)
      .where(and(eq(assignments.sectionId, sectionId), eq(assignments.periodId, periodId)))
      .orderBy(asc(assignments.dueOn), asc(assignments.id));
    return rows.map(
      ({
        createdAt: _at,
        sectionId: _section,
        periodId: _period,
        carriedVersion: _carried,
        possible,
        ...assignment
      }) => ({
        ...assignment,
        possible: formatAtLeast(decimalOrThrow(possible), 0),
      }),
    );
  }

  async scoresOf(queries: Queries, assignmentIds: readonly number[]): Promise<ScoreReply[]> {
    if (assignmentIds.length === 0) return [];
    const rows = await queries
      .select()
      .from(scores)
      .where(inArray(scores.assignmentId, [...assignmentIds]));
    return rows.map(({ createdAt: _at, carriedVersion: _carried, points, ...score }) => ({
      ...score,
      points: points === null ? null : formatAtLeast(decimalOrThrow(points), 0),
    }));
  }

  /** By name. Students who left before the period or came after it are not there. */
  async studentsOf(
    queries: Queries,
    sectionId: number,
    period: { readonly id: number; readonly startsOn: string; readonly endsOn: string },
    itemId: number,
  ): Promise<BookStudent[]> {
    const { rows } = await queries.execute<BookStudent>(sql`
      SELECT e.id AS "enrollmentId", e.student_id AS "studentId", ${personNameOf('s')} AS student,
             ${studentNumberOf('s')} AS "studentNumber",
             CASE WHEN e.withdrawn_on <= ${period.endsOn} THEN e.withdrawn_on END::text AS "withdrawnOn",
             g.percent::text AS percent, coalesce(g.code, g.label) AS mark
      FROM enrollments e JOIN people s ON s.id = e.student_id
      LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = ${itemId} AND g.period_id = ${period.id}
      WHERE e.section_id = ${sectionId} AND e.entered_on <= ${period.endsOn}
        AND (e.withdrawn_on IS NULL OR e.withdrawn_on >= ${period.startsOn})
      ORDER BY ${nameOrderOf('s')}, e.id`);
    return rows;
  }

  /** Nobody else changes the book meanwhile. @throws Refusal not-found */
  async lockOrThrow(queries: Queries, sectionId: number): Promise<void> {
    const found = await queries
      .select({ id: sections.id })
      .from(sections)
      .where(eq(sections.id, sectionId))
      .for('update');
    if (found.length === 0) throw new Refusal('not-found', { what: 'section', id: sectionId });
  }

  /** Each raises the version of its score, which begins at 1. */
  async writeScores(queries: Queries, written: readonly Omit<ScoreReply, 'version'>[]): Promise<void> {
    if (written.length === 0) return;
    await queries
      .insert(scores)
      .values([...written])
      .onConflictDoUpdate({
        target: [scores.assignmentId, scores.enrollmentId],
        set: { points: sql`excluded.points`, flag: sql`excluded.flag`, version: sql`${scores.version} + 1` },
      });
  }

  /** Whose scores they are, and for what: "Brine, Yara (Tests 1)". */
  async namesOfScores(
    queries: Queries,
    places: readonly { readonly assignmentId: number; readonly enrollmentId: number }[],
  ): Promise<ReadonlyMap<string, string>> {
    const { rows } = await queries.execute<{ id: string; name: string }>(sql`
      SELECT concat_ws('/', a.id, e.id) AS id, ${personNameOf('s')} || ' (' || a.name || ')' AS name
      FROM jsonb_to_recordset(${JSON.stringify(places)}::jsonb) AS place ("assignmentId" int, "enrollmentId" int)
      JOIN assignments a ON a.id = place."assignmentId"
      JOIN enrollments e ON e.id = place."enrollmentId" JOIN people s ON s.id = e.student_id`);
    return new Map(rows.map(({ id, name }) => [id, name]));
  }

  /** With the book that each stands in. */
  async assignmentsById(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, AssignmentValue>> {
    const rows = await this.valuesWhere(queries, sql`${assignments.id} = ANY(${intArray(ids)})`);
    return new Map(rows.map(({ id, ...value }) => [id, value]));
  }

  /** All that stand in any book of these sections, by number. */
  assignmentsOfSections(queries: Queries, sectionIds: readonly number[]): Promise<NumberedAssignment[]> {
    return this.valuesWhere(queries, sql`${assignments.sectionId} = ANY(${intArray(sectionIds)})`);
  }

  private async valuesWhere(queries: Queries, condition: SQL): Promise<NumberedAssignment[]> {
    const rows = await queries.select().from(assignments).where(condition).orderBy(asc(assignments.id));
    return rows.map(({ createdAt: _at, version: _version, carriedVersion: _carried, possible, ...assignment }) => ({
      ...assignment,
      possible: formatAtLeast(decimalOrThrow(possible), 0),
    }));
  }

  /** The book that each of these assignments stands in. */
  async placesOf(
    queries: Queries,
    ids: readonly number[],
  ): Promise<ReadonlyMap<number, { readonly sectionId: number; readonly periodId: number }>> {
    const rows = await queries
      .select({ id: assignments.id, sectionId: assignments.sectionId, periodId: assignments.periodId })
      .from(assignments)
      .where(sql`${assignments.id} = ANY(${intArray(ids)})`);
    return new Map(rows.map(({ id, ...place }) => [id, place]));
  }

  /** Makes assignments, or changes them and raises their version. */
  async put(queries: Queries, values: readonly NumberedAssignment[]): Promise<void> {
    if (values.length === 0) return;
    await queries
      .insert(assignments)
      .values([...values])
      .onConflictDoUpdate({ target: assignments.id, set: { ...asGiven, version: sql`${assignments.version} + 1` } });
  }

  /** With their scores. */
  async remove(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    await queries.delete(scores).where(inArray(scores.assignmentId, [...ids]));
    await queries.delete(assignments).where(inArray(assignments.id, [...ids]));
  }
}
