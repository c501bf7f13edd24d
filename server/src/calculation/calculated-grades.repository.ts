import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { Clock, type Queries } from '#server/platform';
import type { StoredGrade } from './calculation-worker.js';

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

  async store(queries: Queries, periodId: number, grades: readonly Omit<StoredGrade, 'sectionId'>[]): Promise<void> {
    if (grades.length === 0) return;
    await queries.execute(sql`
      INSERT INTO calculated_grades (enrollment_id, period_id, percent, blocked_by, calculated_at)
      SELECT g."enrollmentId", ${periodId}, g.percent, g."blockedBy", ${this.clock.now().toISOString()}::timestamptz
      FROM jsonb_to_recordset(${JSON.stringify(grades)}::jsonb) AS g("enrollmentId" int, percent numeric, "blockedBy" jsonb)
      ON CONFLICT (enrollment_id, period_id) DO UPDATE
      SET percent = excluded.percent, blocked_by = excluded.blocked_by, calculated_at = excluded.calculated_at
      WHERE (calculated_grades.percent, calculated_grades.blocked_by) IS DISTINCT FROM (excluded.percent, excluded.blocked_by)`);
  }

  /** The books of some sections, in one period or in all, are to be calculated again. */
  async markStale(queries: Queries, sectionIds: readonly number[], periodId: number | null): Promise<void> {
    if (sectionIds.length === 0) return;
    await queries.execute(sql`
      INSERT INTO stale_books (section_id, period_id)
      SELECT DISTINCT section_id, period_id FROM assignments
      WHERE section_id = ANY(${`{${sectionIds.join(',')}}`}::int[]) AND (${periodId}::int IS NULL OR period_id = ${periodId})
      ON CONFLICT (section_id, period_id) DO UPDATE SET mark = nextval(pg_get_serial_sequence('stale_books', 'mark'))`);
  }

  /** The first stale books of one period, the one with the longest list first. */
  async someStale(queries: Queries, most: number): Promise<StaleBook[]> {
    const { rows } = await queries.execute<StaleBook>(sql`
      SELECT section_id AS "sectionId", period_id AS "periodId", mark FROM stale_books
      WHERE period_id = (SELECT period_id FROM stale_books GROUP BY period_id ORDER BY count(*) DESC, period_id LIMIT 1)
      ORDER BY section_id LIMIT ${most}`);
    return rows;
  }

  /** Of some sections, or of the whole period. */
  async staleOf(queries: Queries, periodId: number, sectionIds: readonly number[] | null): Promise<StaleBook[]> {
    const { rows } = await queries.execute<StaleBook>(sql`
      SELECT section_id AS "sectionId", period_id AS "periodId", mark FROM stale_books
      WHERE period_id = ${periodId}
        AND (${sectionIds === null} OR section_id = ANY(${`{${(sectionIds ?? []).join(',')}}`}::int[]))`);
    return rows;
  }

  async countStale(queries: Queries): Promise<number> {
    const { rows } = await queries.execute<{ count: number }>(sql`SELECT count(*)::int AS count FROM stale_books`);
    return rows[0]!.count;
  }

  /** Takes books off the list, unless they became stale again since they were read. */
  async settle(queries: Queries, books: readonly StaleBook[]): Promise<void> {
    if (books.length === 0) return;
    await queries.execute(sql`
      DELETE FROM stale_books s USING jsonb_to_recordset(${JSON.stringify(books)}::jsonb) AS b("sectionId" int, "periodId" int, mark int)
      WHERE s.section_id = b."sectionId" AND s.period_id = b."periodId" AND s.mark = b.mark`);
  }

  /** Posted percents of the items that take their value from the grade book, with what the book comes to now. */
  async postedBeside(queries: Queries, periodId: number): Promise<PostedBeside[]> {
    const { rows } = await queries.execute<PostedBeside>(sql`
      SELECT g.item_id AS "itemId", e.section_id AS "sectionId", e.id AS "enrollmentId",
             s.family_name || ', ' || s.given_name AS student, g.percent::text AS posted, c.percent::text AS calculated
      FROM grades g JOIN computed_percents c ON c.enrollment_id = g.enrollment_id AND c.item_id = g.item_id AND c.period_id = g.period_id
      JOIN enrollments e ON e.id = g.enrollment_id JOIN people s ON s.id = e.student_id
      WHERE g.period_id = ${periodId} AND g.percent IS NOT NULL AND c.import_id IS NULL AND g.percent <> c.percent
      ORDER BY s.family_name, s.given_name, e.id`);
    return rows;
  }
}
