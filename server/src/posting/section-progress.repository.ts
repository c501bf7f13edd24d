import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { gradedByText } from '#server/period-view';
import { type Queries } from '#server/platform';

/** How far a section is with an item in a period. */
export interface SectionProgress {
  /** Students who take a grade. */
  readonly expected: number;
  /** Of those, how many have a percentage, a label or a code. */
  readonly posted: number;
}

/** Which sections of which period, and the item whose grades are counted. */
export interface ProgressWish {
  readonly period: { readonly id: number; readonly endsOn: string };
  readonly itemId: number;
  readonly sectionIds: readonly number[];
}

/** By section number. A section without students is not there. */
export type ProgressOfSections = ReadonlyMap<number, SectionProgress>;

@Injectable()
export class SectionProgressRepository {
  async of(queries: Queries, wish: ProgressWish): Promise<ProgressOfSections> {
    return (await this.ofPeriods(queries, [wish])).get(wish.period.id)!;
  }

  /** By the number of the period, in one query for all of them. */
  async ofPeriods(queries: Queries, wishes: readonly ProgressWish[]): Promise<ReadonlyMap<number, ProgressOfSections>> {
    const progress = new Map(wishes.map(({ period }) => [period.id, new Map<number, SectionProgress>()]));
    const wanted = wishes.map(({ period, itemId, sectionIds }) => ({ period: period.id, ends: period.endsOn, item: itemId, sections: sectionIds })); // prettier-ignore
    const { rows } = await queries.execute<
      { period: number; section_id: number } & Record<'expected' | 'posted', number>
    >(sql`
      SELECT w.period, e.section_id, count(*)::int AS expected,
             count(*) FILTER (WHERE coalesce(g.percent::text, g.label, g.code) IS NOT NULL)::int AS posted
      FROM jsonb_to_recordset(${JSON.stringify(wanted)}::jsonb) AS w(period int, ends date, item int, sections int[])
      JOIN enrollments e ON e.section_id = ANY(w.sections) AND ${sql.raw(gradedByText('w.ends'))}
      LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = w.item AND g.period_id = w.period
      GROUP BY w.period, e.section_id`);
    for (const { period, section_id, expected, posted } of rows)
      progress.get(period)!.set(section_id, { expected, posted });
    return progress;
  }
}
