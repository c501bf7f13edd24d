import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { ReportItem } from '#core/report-items';
import { enrolledIn, gradedIn, PeriodViews, type PeriodView, type RunningSection } from '#server/period-view';
import type { SchoolPeriod } from '#server/calendar';
import type { Queries } from '#server/platform';

/** How a scale is looked up that no item uses yet. */
export const usualPrecision = { digits: 1, rounding: 'halfUp' } as const;

/** An item of a period and the sections of it that use one scale. */
export interface ScaleUse {
  readonly item: ReportItem;
  readonly sections: readonly RunningSection[];
}

export interface PercentCount {
  readonly percent: string;
  readonly grades: number;
}

/** Tells which items and sections of a period use a scale, and which percents they have. */
@Injectable()
export class ScaleUseService {
  constructor(private readonly views: PeriodViews) {}

  async inPeriod(queries: Queries, period: SchoolPeriod): Promise<ReadonlyMap<number, ScaleUse[]>> {
    return usesIn(await this.views.of(queries, period));
  }

  /** Each student's percent, or level, once: the posted one, or the computed one where no code or percent is posted. */
  async percents(
    queries: Queries,
    uses: readonly ScaleUse[],
    period: SchoolPeriod,
    isLevel: boolean,
  ): Promise<PercentCount[]> {
    if (uses.length === 0) return [];
    const pairs = uses.flatMap(({ item, sections }) => sections.map(({ id }) => ({ item: item.id, section: id })));
    const computed = isLevel ? sql`c.level` : sql`c.percent`;
    const { rows } = await queries.execute<{ percent: string; grades: number }>(sql`
      SELECT trim_scale(coalesce(g.percent, ${computed}))::text AS percent, count(*)::int AS grades
      FROM jsonb_to_recordset(${JSON.stringify(pairs)}::jsonb) AS used(item int, section int)
      JOIN enrollments e ON e.section_id = used.section AND ${enrolledIn(period)}
      LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = used.item AND g.period_id = ${period.id}
      LEFT JOIN computed_percents c ON c.enrollment_id = e.id AND c.item_id = used.item AND c.period_id = ${period.id}
      WHERE coalesce(g.percent, ${computed}) IS NOT NULL AND g.code IS NULL
        AND (g.id IS NOT NULL OR (${gradedIn(period)}))
      GROUP BY 1`);
    return rows;
  }
}

/** By scale, in the order of the report card. */
export function usesIn({ reported }: PeriodView): ReadonlyMap<number, ScaleUse[]> {
  const uses = new Map<number, ScaleUse[]>();
  for (const { item, sections, scales } of reported) {
    for (const scaleId of new Set([...scales.values()].map(({ version }) => version.scaleId))) {
      const own = sections.filter(({ id }) => scales.get(id)?.version.scaleId === scaleId);
      uses.set(scaleId, [...(uses.get(scaleId) ?? []), { item, sections: own }]);
    }
  }
  return uses;
}
