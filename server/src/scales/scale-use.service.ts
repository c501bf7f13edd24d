import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { SchoolPeriod } from '#server/calendar';
import type { Queries } from '#server/platform';
import { ReportingService, type KeptItem, type ReportingSection } from '#server/report-items';
import { SectionScales } from './section-scales.js';

/** An item of a period and the sections of it that use one scale. */
export interface ScaleUse {
  readonly item: KeptItem;
  readonly sections: readonly ReportingSection[];
}

export interface PercentCount {
  readonly percent: string;
  readonly grades: number;
}

/** Tells which items and sections of a period use a scale, and which percents they have. */
@Injectable()
export class ScaleUseService {
  constructor(
    private readonly reporting: ReportingService,
    private readonly sectionScales: SectionScales,
  ) {}

  /** By scale, in the order of the report card. */
  async inPeriod(queries: Queries, period: SchoolPeriod): Promise<ReadonlyMap<number, ScaleUse[]>> {
    const uses = new Map<number, ScaleUse[]>();
    for (const { item, sections } of await this.reporting.inPeriod(queries, period)) {
      const inForce = await this.sectionScales.inForce(queries, item, period, sections);
      for (const scaleId of new Set([...inForce.values()].map((version) => version.scaleId))) {
        const own = sections.filter(({ id }) => inForce.get(id)?.scaleId === scaleId);
        uses.set(scaleId, [...(uses.get(scaleId) ?? []), { item, sections: own }]);
      }
    }
    return uses;
  }

  /** Each student's percent once: the posted one, or the computed one where no code or percent is posted. */
  async percents(queries: Queries, uses: readonly ScaleUse[], periodId: number): Promise<PercentCount[]> {
    if (uses.length === 0) return [];
    const pairs = uses.flatMap(({ item, sections }) => sections.map(({ id }) => ({ item: item.id, section: id })));
    const { rows } = await queries.execute<{ percent: string; grades: number }>(sql`
      SELECT trim_scale(coalesce(g.percent, c.percent))::text AS percent, count(*)::int AS grades
      FROM jsonb_to_recordset(${JSON.stringify(pairs)}::jsonb) AS used(item int, section int)
      JOIN enrollments e ON e.section_id = used.section
      LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = used.item AND g.period_id = ${periodId}
      LEFT JOIN computed_percents c ON c.enrollment_id = e.id AND c.item_id = used.item AND c.period_id = ${periodId}
      WHERE coalesce(g.percent, c.percent) IS NOT NULL AND g.code IS NULL
      GROUP BY 1`);
    return rows;
  }
}
