import { Injectable } from '@nestjs/common';
import { scaleInForce } from '#core/scales';
import type { SchoolPeriod } from '#server/calendar';
import { PlacementsRepository, seekerOf } from '#server/courses';
import type { Queries } from '#server/platform';
import type { KeptItem, ReportingSection } from '#server/report-items';
import { ScalesRepository, type ScaleVersion } from './scales.repository.js';

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
  ): Promise<ReadonlyMap<number, ScaleVersion>> {
    const { scaleId } = item;
    const placements = scaleId === null ? await this.placements.ofSchool(queries, period.schoolId) : [];
    const wanted = scaleId === null ? [...new Set(placements.map((placement) => placement.scaleId))] : [scaleId];
    const versions = await this.scales.inForce(queries, wanted, period);
    const begun = placements.filter((placement) => versions.has(placement.scaleId));
    return new Map(
      sections.flatMap(({ id, course }) => {
        const own = scaleId ?? scaleInForce(begun, { ...seekerOf(course), sectionId: id })?.placement.scaleId;
        const version = own === undefined ? undefined : versions.get(own);
        return version ? [[id, version] as const] : [];
      }),
    );
  }
}
