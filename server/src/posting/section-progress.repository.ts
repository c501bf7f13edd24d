import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { SchoolPeriod } from '#server/calendar';
import { gradedIn } from '#server/period-view';
import { intArray, type Queries } from '#server/platform';

/** How far a section is with an item in a period. */
export interface SectionProgress {
  /** Students who take a grade. */
  readonly expected: number;
  /** Of those, how many have a percent, a label or a code. */
  readonly posted: number;
}

@Injectable()
export class SectionProgressRepository {
  /** By section number. A section without students is not there. */
  async of(
    queries: Queries,
    itemId: number,
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<ReadonlyMap<number, SectionProgress>> {
    if (sectionIds.length === 0) return new Map();
    const { rows } = await queries.execute<{ section_id: number; expected: number; posted: number }>(sql`
      SELECT e.section_id, count(*)::int AS expected,
             count(*) FILTER (WHERE coalesce(g.percent::text, g.label, g.code) IS NOT NULL)::int AS posted
      FROM enrollments e
      LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = ${itemId} AND g.period_id = ${period.id}
      WHERE e.section_id = ANY(${intArray(sectionIds)}) AND ${gradedIn(period)}
      GROUP BY e.section_id`);
    return new Map(rows.map(({ section_id, expected, posted }) => [section_id, { expected, posted }]));
  }
}
