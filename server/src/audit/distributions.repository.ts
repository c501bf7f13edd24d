import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Sample } from '#core/statistics';
import { sectionNameOf, type Queries } from '#server/platform';

/** How often a label is posted for an item in one section and period. */
export interface LabelCount {
  readonly periodId: number;
  readonly period: string;
  readonly sectionId: number;
  readonly section: string;
  readonly label: string;
  readonly grades: number;
}

/** A sheet, whose course has others like it. */
export interface SheetOfCourse {
  readonly itemId: number;
  readonly sectionId: number;
  readonly periodId: number;
}

@Injectable()
export class DistributionsRepository {
  /** Of all sections of a course in a period and in those of its kind before it, of who still sat there at their end; the newest first. */
  async ofCourse(queries: Queries, { itemId, sectionId, periodId }: SheetOfCourse): Promise<LabelCount[]> {
    const { rows } = await queries.execute<LabelCount & Record<string, unknown>>(sql`
      SELECT p.id AS "periodId", p.name || ' ' || coalesce(y.name, '') AS period, s.id AS "sectionId",
        ${sectionNameOf('c', 's')} AS section, g.label, count(*)::int AS grades
      FROM periods now
      JOIN periods p ON p.school_id = now.school_id AND p.kind = now.kind AND p.ends_on <= now.ends_on
      LEFT JOIN periods h ON h.id = p.parent_id LEFT JOIN periods y ON y.id = coalesce(h.parent_id, h.id)
      JOIN sections own ON own.id = ${sectionId} JOIN sections s ON s.course_id = own.course_id
      JOIN courses c ON c.id = s.course_id JOIN enrollments e ON e.section_id = s.id
      JOIN grades g ON g.enrollment_id = e.id AND g.period_id = p.id AND g.item_id = ${itemId}
      WHERE now.id = ${periodId} AND g.label IS NOT NULL AND g.code IS NULL
        AND (e.withdrawn_on IS NULL OR e.withdrawn_on > p.ends_on)
      GROUP BY p.id, y.name, s.id, c.id, g.label ORDER BY p.ends_on DESC, s.number, s.id`);
    return rows;
  }

  /** The posted percentages of a section, and those of its sister sections, in the period: how many, their mean and variance. */
  async percentsOf(
    queries: Queries,
    { itemId, sectionId, periodId }: SheetOfCourse,
  ): Promise<Record<'own' | 'others', Sample>> {
    const { rows } = await queries.execute<Sample & { isOwn: boolean } & Record<string, unknown>>(sql`
      SELECT s.id = own.id AS "isOwn", count(*)::int AS count, avg(g.percent)::float8 AS mean,
        coalesce(var_samp(g.percent), 0)::float8 AS variance
      FROM periods p JOIN sections own ON own.id = ${sectionId} JOIN sections s ON s.course_id = own.course_id
      JOIN enrollments e ON e.section_id = s.id
      JOIN grades g ON g.enrollment_id = e.id AND g.period_id = p.id AND g.item_id = ${itemId}
      WHERE p.id = ${periodId} AND g.percent IS NOT NULL AND g.code IS NULL
        AND (e.withdrawn_on IS NULL OR e.withdrawn_on > p.ends_on)
      GROUP BY 1`);
    const of = (isOwn: boolean) => rows.find((row) => row.isOwn === isOwn) ?? { count: 0, mean: 0, variance: 0 };
    return { own: of(true), others: of(false) };
  }
}
