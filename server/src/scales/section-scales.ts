import { Injectable } from '@nestjs/common';
import { scaleInForce } from '#core/scales';
import type { SchoolPeriod } from '#server/calendar';
import { PlacementsRepository, placeName, seekerOf } from '#server/courses';
import type { Queries } from '#server/platform';
import type { KeptItem, ReportingSection } from '#server/report-items';
import { ScalesRepository, type ScaleVersion } from './scales.repository.js';

/** A version in force, and what says so: the item, or the place that put its scale in force. */
export interface SectionScale extends ScaleVersion {
  readonly from: string;
}

/** Says which version of which scale holds for a section and an item in a period. */
@Injectable()
export class SectionScales {
  constructor(
    private readonly scales: ScalesRepository,
    private readonly placements: PlacementsRepository,
  ) {}

  /**
   * The versions in force by section: the item's own scale, or the one in force for the section. A section for which none
   * is in force is left out. A placed scale whose first version begins later does not count yet.
   */
  async inForce(
    queries: Queries,
    item: Pick<KeptItem, 'scaleId'>,
    period: SchoolPeriod,
    sections: readonly ReportingSection[],
  ): Promise<ReadonlyMap<number, SectionScale>> {
    const { scaleId } = item;
    const placements = scaleId === null ? await this.placements.ofSchool(queries, period.schoolId) : [];
    const wanted = scaleId === null ? [...new Set(placements.map((placement) => placement.scaleId))] : [scaleId];
    const versions = await this.scales.inForce(queries, wanted, period);
    const begun = placements.filter((placement) => versions.has(placement.scaleId));
    return new Map(
      sections.flatMap(({ id, course }) => {
        const placement = scaleInForce(begun, { ...seekerOf(course), sectionId: id })?.placement;
        const version = versions.get(scaleId ?? placement?.scaleId ?? 0);
        const from = placement ? placeName(placement) : 'the report item';
        return version ? [[id, { ...version, from }] as const] : [];
      }),
    );
  }
}
