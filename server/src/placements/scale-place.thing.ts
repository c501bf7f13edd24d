import { ThingOf, type Thing } from '#server/changes';
import { PeriodsRepository } from '#server/calendar';
import type { PlaceOf, Queries } from '#server/platform';
import { PlacementsRepository } from './placements.repository.js';
import { missingFrom, scalePlaceOf, type PlacedScale } from './scale-place.js';

/** Which scale a place uses from when on, by the place. What sealed periods use stays. */
@ThingOf({
  kind: 'scale-place',
  called: 'the scale in use at the place',
  change: 'change-set-up',
  see: 'read-set-up',
  at: placeOfScales,
})
export class ScalePlaceThing implements Thing<readonly PlacedScale[]> {
  constructor(
    private readonly placements: PlacementsRepository,
    private readonly periods: PeriodsRepository,
  ) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, readonly PlacedScale[]>> {
    const found = new Map<string, readonly PlacedScale[]>();
    for (const id of ids) {
      const placed = await this.placements.atPlace(queries, scalePlaceOf(id));
      if (placed.length > 0) found.set(id, placed);
    }
    return found;
  }

  /** What begins with a period that differs counts in all later ones too. */
  async check(queries: Queries, values: ReadonlyMap<string, readonly PlacedScale[] | null>): Promise<void> {
    for (const [id, placed] of values) {
      const place = scalePlaceOf(id);
      const before = await this.placements.atPlace(queries, place);
      const differing = [...missingFrom(before, placed ?? []), ...missingFrom(placed ?? [], before)];
      for (const periodId of new Set(differing.flatMap(({ fromPeriodId }) => fromPeriodId ?? [])))
        await this.periods.refuseSealedFrom(queries, await this.periods.byIdOrThrow(queries, periodId), place.schoolId);
    }
  }

  async write(queries: Queries, values: ReadonlyMap<string, readonly PlacedScale[] | null>): Promise<void> {
    for (const [id, placed] of values) await this.placements.replace(queries, scalePlaceOf(id), placed ?? []);
  }
}

function placeOfScales(id: string): PlaceOf | null {
  const { schoolId } = scalePlaceOf(id);
  return schoolId === null ? null : { kind: 'school', id: schoolId };
}
