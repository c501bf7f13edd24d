import { Injectable } from '@nestjs/common';
import { formatDecimal } from '#core/numbers';
import { countedPlacements, versionsInForce } from '#core/period-view';
import { placementsInForce, scaleInForce } from '#core/scales';
import { bodyOfBand, type ScaleReply, type ScalesReply } from '#contract/scales';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PlacementsRepository, placeName, seekerOf } from '#server/placements';
import { revisionOf } from '#server/changes';
import { PeriodViews, type ScaleVersion, type SchoolFacts } from '#server/period-view';
import type { Queries } from '#server/platform';
import { ScaleUseService, usesIn, usualPrecision, type ScaleUse } from './scale-use.service.js';
import { ScaleRecords } from './scale-records.repository.js';
import { ScalesRepository, type ScaleRow } from './scales.repository.js';
import { tieBody } from './tie.js';

/** What the interface is told of a period's scales: each with the grades that it labels, and where it is used. */
@Injectable()
export class ScaleReplies {
  constructor(
    private readonly scales: ScalesRepository,
    private readonly records: ScaleRecords,
    private readonly periods: PeriodsRepository,
    private readonly placements: PlacementsRepository,
    private readonly uses: ScaleUseService,
    private readonly views: PeriodViews,
  ) {}

  async read(queries: Queries, periodId: number): Promise<ScalesReply> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const scales = await this.scales.ofSchool(queries, period.schoolId);
    const facts = await this.views.factsOf(queries, period.schoolId);
    const inForce = versionsInForce(facts.versions, period);
    const uses = usesIn(this.views.viewOf(facts, period));
    const replies: ScaleReply[] = [];
    const values = await this.records.values(
      queries,
      scales.map(({ id }) => id),
    );
    for (const scale of scales) {
      const version = inForce.get(scale.id) ?? facts.versions.find(({ scaleId }) => scaleId === scale.id);
      if (!version) continue;
      const reply = await this.reply(queries, scales, scale, version, uses.get(scale.id) ?? [], period);
      replies.push({ ...reply, revision: revisionOf(values.get(String(scale.id))) });
    }
    return { scales: replies, codes: [...facts.codes.keys()], ...(await this.placed(queries, facts, period)) };
  }

  private async reply(
    queries: Queries,
    scales: readonly ScaleRow[],
    { id, schoolId, name, kind, tie, highestLevel }: ScaleRow,
    version: ScaleVersion,
    uses: readonly ScaleUse[],
    period: SchoolPeriod,
  ): Promise<Omit<ScaleReply, 'revision'>> {
    const history = await this.scales.history(queries, id);
    const versions = history.map(({ savedAt, ...entry }) => ({ ...entry, savedAt: savedAt.toISOString() }));
    const { digits, rounding } = uses[0]?.item ?? usualPrecision;
    const own = tie && scales.find((other) => other.id === tie.toId);
    return {
      id,
      name,
      isDistrictWide: schoolId === null,
      kind,
      highestLevel: highestLevel && formatDecimal(highestLevel),
      tie: own ? { ...tieBody({ tie })!, toName: own.name } : null,
      followers: scales.filter((other) => other.tie?.toId === id).map((other) => ({ id: other.id, name: other.name })),
      digits,
      rounding,
      version: versions.find(({ number }) => number === version.number)!,
      latestVersion: versions[0]!.number,
      bands: version.bands.map(bodyOfBand),
      versions,
      items: uses.map(({ item }) => item.name),
      coursesUsingIt: new Set(uses.flatMap(({ sections }) => sections.map(({ course }) => course.id))).size,
      tallies: await this.uses.percents(queries, uses, period, kind === 'level'),
    };
  }

  private async placed(
    queries: Queries,
    { courses, placements, versions }: SchoolFacts,
    period: SchoolPeriod,
  ): Promise<Omit<ScalesReply, 'scales' | 'codes'>> {
    const inForce = placementsInForce(placements, period);
    const counted = countedPlacements(placements, versions, period);
    const begun = new Set(counted.map(({ id }) => id));
    const titles = new Map(courses.map(({ id, title }) => [id, title]));
    const sectionNames = await this.placements.sectionNames(queries, period.schoolId);
    const scaleNames = await this.placements.scaleNames(queries);
    const placed = await this.placements.byPlace(queries, period.schoolId);
    const periodNames = new Map(
      (await this.periods.ofSchool(queries, period.schoolId)).map(({ id, name }) => [id, name]),
    );
    const nameOf = (placement: (typeof placements)[number]) =>
      titles.get(placement.courseId ?? 0) ?? sectionNames.get(placement.sectionId ?? 0) ?? placeName(placement);
    const fromPeriodOf = ({ fromPeriodId }: (typeof placements)[number]) =>
      fromPeriodId === null ? null : (periodNames.get(fromPeriodId) ?? 'an earlier period');
    const dated = new Map(placements.map((placement) => [placement.id, placement]));
    return {
      placements: inForce.map(({ schoolId: _schoolId, ...placement }) => ({
        ...placement,
        place: nameOf(dated.get(placement.id)!),
        fromPeriod: fromPeriodOf(dated.get(placement.id)!),
        isBegun: begun.has(placement.id),
      })),
      laterPlacements: placements
        .filter(({ fromDay }) => fromDay !== null && fromDay > period.startsOn)
        .map((placement) => ({
          place: nameOf(placement),
          scale: placement.scaleId === null ? null : (scaleNames.get(placement.scaleId) ?? null),
          fromPeriod: fromPeriodOf(placement)!,
        })),
      placeRevisions: Object.fromEntries([...placed].map(([key, there]) => [key, revisionOf(there)])),
      departments: [...new Set(courses.map(({ department }) => department))].toSorted(),
      sections: [...sectionNames].map(([id, name]) => ({ id, name })).toSorted((a, b) => a.name.localeCompare(b.name)),
      courses: courses.map((course) => {
        const found = scaleInForce(counted, seekerOf(course));
        return {
          id: course.id,
          title: course.title,
          scaleId: found?.placement.scaleId ?? null,
          placementId: found?.placement.id ?? null,
          overruled: found?.overruled.length ?? 0,
        };
      }),
    };
  }
}
