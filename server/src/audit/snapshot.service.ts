import { Injectable } from '@nestjs/common';
import type { GradeFact, ItemFact, Snapshot } from '#core/audit';
import type { SchoolPeriod } from '#server/calendar';
import type { Queries } from '#server/platform';
import { GradeRowsRepository, type GradeRow } from '#server/posting';
import { precisionOf, ReportingService, type Reporting, type ReportingSection } from '#server/report-items';
import { ScalesRepository, SectionScales, type ScaleVersion } from '#server/scales';

/** A period as the audit sees it, and the rows behind its facts. */
export interface PeriodSnapshot {
  readonly snapshot: Snapshot;
  readonly graded: readonly GradedRow[];
}

export interface GradedRow {
  readonly row: GradeRow;
  readonly section: ReportingSection;
  readonly reporting: Reporting;
  /** The version the grade was posted under, or the one in force. */
  readonly scale: ScaleVersion;
}

@Injectable()
export class SnapshotService {
  constructor(
    private readonly reporting: ReportingService,
    private readonly rows: GradeRowsRepository,
    private readonly scales: ScalesRepository,
    private readonly sectionScales: SectionScales,
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
    read: (reporting: Reporting) => Promise<GradeRow[]>,
  ): Promise<PeriodSnapshot> {
    const graded: GradedRow[] = [];
    for (const reporting of await this.reporting.inPeriod(queries, period)) {
      graded.push(...(await this.withSections(queries, period, reporting, await read(reporting))));
    }
    const codes = new Map((await this.scales.codes(queries)).map((code) => [code.code, code]));
    const grades = graded.map(gradeFact);
    return { graded, snapshot: { periodStartsOn: period.startsOn, periodEndsOn: period.endsOn, codes, grades } };
  }

  /** Rows of sections that do not report the item are left out. */
  private async withSections(
    queries: Queries,
    period: SchoolPeriod,
    reporting: Reporting,
    rows: readonly GradeRow[],
  ): Promise<GradedRow[]> {
    const sections = new Map(reporting.sections.map((section) => [section.id, section]));
    const inForce = await this.sectionScales.inForce(queries, reporting.item, period, reporting.sections);
    const ids = rows.flatMap(({ scaleVersionId }) => scaleVersionId ?? []);
    const versions = await this.scales.versions(queries, [...new Set(ids)]);
    return rows.flatMap((row) => {
      const section = sections.get(row.sectionId);
      if (!section) return [];
      const posted = row.scaleVersionId === null ? undefined : versions.get(row.scaleVersionId);
      return [{ row, reporting, section, scale: posted ?? inForce.get(section.id) ?? noScale }];
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
const noScale: ScaleVersion = { id: 0, scaleId: 0, scaleName: 'no scale', number: 0, fromPeriodId: 0, bands: [] };
