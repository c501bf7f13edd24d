import { Injectable } from '@nestjs/common';
import { dayOrThrow } from '#core/calendar';
import type { GradeFact, ItemFact, Snapshot } from '#core/audit';
import type { SchoolPeriod } from '#server/calendar';
import type { Queries } from '#server/platform';
import { GradeRowsRepository, type GradeRow } from '#server/posting';
import {
  PeriodViews,
  ScaleVersionsRepository,
  type ReportedItem,
  type RunningSection,
  type ScaleVersion,
} from '#server/period-view';
import { precisionOf } from '#server/report-items';

/** A period as the audit sees it, and the rows behind its facts. */
export interface PeriodSnapshot {
  readonly snapshot: Snapshot;
  readonly graded: readonly GradedRow[];
}

export interface GradedRow {
  readonly row: GradeRow;
  readonly section: RunningSection;
  readonly reporting: ReportedItem;
  /** The version the grade was posted under, or the one in force. */
  readonly scale: ScaleVersion;
}

@Injectable()
export class SnapshotService {
  constructor(
    private readonly views: PeriodViews,
    private readonly rows: GradeRowsRepository,
    private readonly scales: ScaleVersionsRepository,
  ) {}

  ofPeriod(queries: Queries, period: SchoolPeriod): Promise<PeriodSnapshot> {
    return this.take(queries, period, ({ item, sections }) =>
      this.rows.ofSections(
        queries,
        item.id,
        period,
        sections.map(({ id }) => id),
      ),
    );
  }

  /** The part of the period that concerns one student. */
  ofStudent(queries: Queries, period: SchoolPeriod, studentId: number): Promise<PeriodSnapshot> {
    return this.take(queries, period, ({ item }) => this.rows.ofStudent(queries, item.id, period, studentId));
  }

  private async take(
    queries: Queries,
    period: SchoolPeriod,
    read: (reporting: ReportedItem) => Promise<GradeRow[]>,
  ): Promise<PeriodSnapshot> {
    const graded: GradedRow[] = [];
    const { reported, codes } = await this.views.of(queries, period);
    for (const reporting of reported)
      graded.push(...(await this.withSections(queries, reporting, await read(reporting))));
    const grades = graded.map(gradeFact);
    return { graded, snapshot: { periodStartsOn: period.startsOn, periodEndsOn: period.endsOn, codes, grades } };
  }

  /** Rows of sections that do not report the item are left out. */
  private async withSections(
    queries: Queries,
    reporting: ReportedItem,
    rows: readonly GradeRow[],
  ): Promise<GradedRow[]> {
    const sections = new Map(reporting.sections.map((section) => [section.id, section]));
    const ids = rows.flatMap(({ scaleVersionId }) => scaleVersionId ?? []);
    const versions = await this.scales.byId(queries, [...new Set(ids)]);
    return rows.flatMap((row) => {
      const section = sections.get(row.sectionId);
      if (!section) return [];
      const posted = row.scaleVersionId === null ? undefined : versions.get(row.scaleVersionId);
      return [{ row, reporting, section, scale: posted ?? reporting.scales.get(section.id)?.version ?? noScale }];
    });
  }
}

function gradeFact({ row, reporting: { item }, scale }: GradedRow): GradeFact {
  const { enrollmentId, mark, withdrawnOn } = row;
  const { id, name, failingNeedsLastDate } = item;
  const itemFact: ItemFact = { id, name, failingNeedsLastDate, precision: precisionOf(item) };
  return {
    enrollmentId,
    mark,
    withdrawnOn,
    item: itemFact,
    scale: { name: scale.scaleName, bands: scale.bands.filter(({ isOff }) => !isOff) },
  };
}

/** Where no scale is in force no label fits; the check of the set-up says so. */
const noScale: ScaleVersion = {
  id: 0,
  scaleId: 0,
  scaleName: 'no scale',
  kind: 'percent',
  highestLevel: null,
  number: 0,
  fromPeriodId: 0,
  fromDay: dayOrThrow('0001-01-01'),
  bands: [],
};
