import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Day } from '#core/calendar';
import type { OwnSection } from '#core/sections';
import type { OwnSetUp } from '#contract/sections';
import { intArray, type Queries } from '#server/platform';

/** What sections are as several become one, or one becomes two. */
@Injectable()
export class ReshapedSectionsRepository {
  /** Seats of sections that nobody has left before a day, by number. */
  async stayingSeats(queries: Queries, sectionIds: readonly number[], day: Day): Promise<number[]> {
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT id FROM enrollments WHERE section_id = ANY(${intArray(sectionIds)})
        AND (withdrawn_on IS NULL OR withdrawn_on >= ${day}::date) ORDER BY id`);
    return rows.map(({ id }) => id);
  }

  /** The first day of each section, by its number. */
  async firstDays(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, Day>> {
    const { rows } = await queries.execute<{ id: number; from: Day }>(sql`
      SELECT s.id, coalesce(s.starts_on, p.starts_on)::text AS "from"
      FROM sections s JOIN periods p ON p.id = s.period_id WHERE s.id = ANY(${intArray(ids)})`);
    return new Map(rows.map(({ id, from }) => [id, from]));
  }

  /** The title of a section's course, and the next number that no section of it has in the period. */
  async nextNumber(queries: Queries, { courseId, periodId }: OwnSection): Promise<{ title: string; number: number }> {
    const { rows } = await queries.execute<{ title: string; number: number }>(sql`
      SELECT c.title, (SELECT max(number) + 1 FROM sections WHERE course_id = c.id AND period_id = ${periodId}) AS number
      FROM courses c WHERE c.id = ${courseId}`);
    return rows[0]!;
  }

  /**
   * The numbers of the assignments of sections in periods that are not sealed and end on a day or later, but for those in
   * categories of a section's own, which another one does not have.
   */
  async copyable(queries: Queries, sectionIds: readonly number[], day: Day): Promise<ReadonlySet<number>> {
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT a.id FROM assignments a JOIN periods p ON p.id = a.period_id JOIN categories g ON g.id = a.category_id
      WHERE a.section_id = ANY(${intArray(sectionIds)}) AND g.section_id IS NULL AND p.ends_on >= ${day}::date
        AND NOT EXISTS (SELECT 1 FROM seals l WHERE l.period_id = a.period_id)`);
    return new Set(rows.map(({ id }) => id));
  }

  /** What a section has of its own. */
  async ownSetUp(queries: Queries, sectionId: number): Promise<OwnSetUp[]> {
    const { rows } = await queries.execute<{ what: OwnSetUp }>(sql`
      SELECT 'calculation' AS what FROM calculation_policies WHERE section_id = ${sectionId}
      UNION SELECT 'categories' FROM categories WHERE section_id = ${sectionId}
      UNION SELECT 'scale' FROM scale_placements WHERE section_id = ${sectionId} ORDER BY 1`);
    return rows.map(({ what }) => what);
  }
}
