import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { intArray, Clock, type Queries, nameOrderOf, personNameOf, sectionNameOf } from '#server/platform';
import type { KeptGrade } from './books/kept-grades.js';

/** A grade book whose calculated grades are out of date. */
export interface StaleBook extends Record<string, unknown> {
  readonly sectionId: number;
  readonly periodId: number;
  readonly mark: number;
}

/** A posted percent beside what is calculated now, to be compared at the item's precision. */
export interface PostedBeside extends Record<string, unknown> {
  readonly itemId: number;
  readonly sectionId: number;
  readonly enrollmentId: number;
  readonly student: string;
  readonly posted: string;
  readonly calculated: string;
}

@Injectable()
export class CalculatedGradesRepository {
  constructor(private readonly clock: Clock) {}

  /**
   * Keeps what books came to and takes them off the list, as far as they still bear the mark under which they were read: what
   * became stale again meanwhile is left as it is, to be calculated once more. Inside a transaction.
   */
  async settle(
    queries: Queries,
    periodId: number,
    books: readonly StaleBook[],
    grades: readonly KeptGrade[],
  ): Promise<void> {
    const settled = new Set(await this.takeOff(queries, books));
    const own = grades.filter(({ sectionId }) => settled.has(sectionId));
    if (own.length === 0) return;
    await queries.execute(sql`
      INSERT INTO calculated_grades (enrollment_id, period_id, percent, level, by_category, blocked_by, calculated_at)
      SELECT g."enrollmentId", ${periodId}, g.percent, g.level, g."byCategory", g."blockedBy",
             ${this.clock.now().toISOString()}::timestamptz
      FROM jsonb_to_recordset(${JSON.stringify(own)}::jsonb)
        AS g("enrollmentId" int, percent numeric, level numeric, "byCategory" jsonb, "blockedBy" jsonb)
      ON CONFLICT (enrollment_id, period_id) DO UPDATE
      SET percent = excluded.percent, level = excluded.level, by_category = excluded.by_category,
          blocked_by = excluded.blocked_by, calculated_at = excluded.calculated_at
      WHERE (calculated_grades.percent, calculated_grades.level, calculated_grades.by_category, calculated_grades.blocked_by)
        IS DISTINCT FROM (excluded.percent, excluded.level, excluded.by_category, excluded.blocked_by)`);
  }

  /** A book that cannot be calculated: what it came to before holds no longer, and it waits until something of it changes. */
  async giveUp(queries: Queries, { sectionId, periodId, mark }: StaleBook, problem: string): Promise<void> {
    const { rowCount } = await queries.execute(sql`
      UPDATE stale_books SET problem = ${problem}
      WHERE section_id = ${sectionId} AND period_id = ${periodId} AND mark = ${mark}`);
    if (rowCount === 0) return;
    await queries.execute(sql`
      DELETE FROM calculated_grades k USING enrollments e
      WHERE e.id = k.enrollment_id AND e.section_id = ${sectionId} AND k.period_id = ${periodId}`);
  }

  /** The first stale books of one period, the one with the longest list first. */
  async someStale(queries: Queries, most: number): Promise<StaleBook[]> {
    const { rows } = await queries.execute<StaleBook>(sql`
      SELECT section_id AS "sectionId", period_id AS "periodId", mark FROM stale_books
      WHERE problem IS NULL AND period_id =
        (SELECT period_id FROM stale_books WHERE problem IS NULL GROUP BY period_id ORDER BY count(*) DESC, period_id LIMIT 1)
      ORDER BY section_id LIMIT ${most}`);
    return rows;
  }

  /** Of some sections, or of the whole period. */
  async staleOf(queries: Queries, periodId: number, sectionIds: readonly number[] | null): Promise<StaleBook[]> {
    const { rows } = await queries.execute<StaleBook>(sql`
      SELECT section_id AS "sectionId", period_id AS "periodId", mark FROM stale_books
      WHERE problem IS NULL AND period_id = ${periodId}
        AND (${sectionIds === null} OR section_id = ANY(${intArray(sectionIds ?? [])}))`);
    return rows;
  }

  async countStale(queries: Queries): Promise<number> {
    const { rows } = await queries.execute<{ count: number }>(
      sql`SELECT count(*)::int AS count FROM stale_books WHERE problem IS NULL`,
    );
    return rows[0]!.count;
  }

  /** The books that could not be calculated, and why. */
  async failed(queries: Queries): Promise<{ sectionId: number; section: string; problem: string }[]> {
    const { rows } = await queries.execute<{ sectionId: number; section: string; problem: string }>(sql`
      SELECT b.section_id AS "sectionId", ${sectionNameOf('c', 's')} AS section, b.problem FROM stale_books b
      JOIN sections s ON s.id = b.section_id JOIN courses c ON c.id = s.course_id
      WHERE b.problem IS NOT NULL ORDER BY 2, 1`);
    return rows;
  }

  /** Takes books off the list that did not become stale again since they were read. @returns their sections */
  private async takeOff(queries: Queries, books: readonly StaleBook[]): Promise<number[]> {
    if (books.length === 0) return [];
    const { rows } = await queries.execute<{ sectionId: number }>(sql`
      DELETE FROM stale_books s USING jsonb_to_recordset(${JSON.stringify(books)}::jsonb) AS b("sectionId" int, "periodId" int, mark int)
      WHERE s.section_id = b."sectionId" AND s.period_id = b."periodId" AND s.mark = b.mark
      RETURNING s.section_id AS "sectionId"`);
    return rows.map(({ sectionId }) => sectionId);
  }

  /** Posted percents of the items that take their value from the grade book, with what the book comes to now. */
  async postedBeside(queries: Queries, periodId: number): Promise<PostedBeside[]> {
    const { rows } = await queries.execute<PostedBeside>(sql`
      SELECT g.item_id AS "itemId", e.section_id AS "sectionId", e.id AS "enrollmentId",
             ${personNameOf('s')} AS student, g.percent::text AS posted, c.percent::text AS calculated
      FROM grades g JOIN computed_percents c ON c.enrollment_id = g.enrollment_id AND c.item_id = g.item_id AND c.period_id = g.period_id
      JOIN enrollments e ON e.id = g.enrollment_id JOIN people s ON s.id = e.student_id
      WHERE g.period_id = ${periodId} AND g.percent IS NOT NULL AND c.import_id IS NULL AND g.percent <> c.percent
      ORDER BY ${nameOrderOf('s')}, e.id`);
    return rows;
  }
}
