import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { countSheet, type AlikeGrades, type SheetCounts } from '#core/board';
import { parseDay } from '#core/calendar';
import { decimalOrThrow } from '#core/numbers';
import { noMark } from '#core/posting';
import { gradedByText, ScaleVersionsRepository, type PeriodView } from '#server/period-view';
import type { SchoolPeriod } from '#server/calendar';
import { sheetId } from '#server/posting';
import type { Queries } from '#server/platform';

/** Students of a sheet who are alike in all that is counted. */
interface AlikeRow extends Record<string, unknown> {
  readonly section: number;
  readonly item: number;
  readonly students: number;
  readonly hasPercent: boolean;
  readonly label: string | null;
  readonly code: string | null;
  readonly lastDate: string | null;
  readonly hasComment: boolean;
  readonly isOverride: boolean;
  readonly hasReason: boolean;
  readonly versionId: number | null;
}

/** Stands for any percent, comment or reason: it only counts whether there is one. */
const [anyPercent, anyWords] = [decimalOrThrow('0'), 'given'];

/** Counts what sheets have and lack, whole schools at a time: the database gathers who are alike, core judges each kind once. */
@Injectable()
export class SheetCountsRepository {
  constructor(private readonly scales: ScaleVersionsRepository) {}

  /** By the name of the sheet; of all that the sections report in the period. */
  async of(
    queries: Queries,
    view: PeriodView,
    period: SchoolPeriod,
    sectionIds: ReadonlySet<number>,
  ): Promise<ReadonlyMap<string, SheetCounts>> {
    const wanted = view.reported.map(({ item, sections }) => ({
      item: item.id,
      sections: sections.filter(({ id }) => sectionIds.has(id)).map(({ id }) => id),
    }));
    const { rows } = await queries.execute<AlikeRow>(sql`
      SELECT e.section_id AS section, w.item, count(*)::int AS students, g.percent IS NOT NULL AS "hasPercent", g.label, g.code,
        g.last_date::text AS "lastDate", coalesce(btrim(g.comment), '') <> '' AS "hasComment",
        coalesce(g.is_override, false) AS "isOverride", coalesce(btrim(g.override_reason), '') <> '' AS "hasReason",
        g.scale_version_id AS "versionId"
      FROM jsonb_to_recordset(${JSON.stringify(wanted)}::jsonb) AS w(item int, sections int[])
      JOIN enrollments e ON e.section_id = ANY(w.sections) AND ${sql.raw(gradedByText(`'${period.endsOn}'`))}
      LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = w.item AND g.period_id = ${period.id}
      GROUP BY e.section_id, w.item, 4, g.label, g.code, g.last_date, 8, 9, 10, g.scale_version_id`);
    const versions = await this.scales.byId(queries, [...new Set(rows.flatMap(({ versionId }) => versionId ?? []))]);
    const groups = new Map<string, AlikeGrades[]>();
    for (const row of rows) {
      const key = sheetId({ sectionId: row.section, itemId: row.item, periodId: period.id });
      const own = groups.get(key) ?? [];
      groups.set(key, own);
      own.push({
        students: row.students,
        mark: {
          ...noMark,
          percent: row.hasPercent ? anyPercent : null,
          label: row.label,
          code: row.code,
          lastDate: row.lastDate === null ? null : (parseDay(row.lastDate) ?? null),
          comment: row.hasComment ? anyWords : '',
          overrideReason: row.hasReason ? anyWords : '',
        },
        isOverride: row.isOverride,
        bands: versions.get(row.versionId ?? 0)?.bands ?? [],
      });
    }
    const counted = new Map<string, SheetCounts>();
    for (const { item, sections } of view.reported)
      for (const { id } of sections.filter((section) => sectionIds.has(section.id))) {
        const key = sheetId({ sectionId: id, itemId: item.id, periodId: period.id });
        counted.set(key, countSheet(groups.get(key) ?? [], { item, period, codes: view.codes }));
      }
    return counted;
  }
}
