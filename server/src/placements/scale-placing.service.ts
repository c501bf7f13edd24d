import { Injectable } from '@nestjs/common';
import type { ScalePlace } from '#core/scales';
import { revisionOf, type Edit } from '#server/changes';
import type { Queries } from '#server/platform';
import { PlacementsRepository } from './placements.repository.js';
import { scalePlaceId, type PlacedScale } from './scale-place.js';

/** Says as an edit what it is to put a scale at a place. */
@Injectable()
export class ScalePlacing {
  constructor(private readonly placements: PlacementsRepository) {}

  /**
   * Lets a scale be used at a place from a period on, or with null lets the place inherit from then on. What began with the
   * same period goes; what began earlier stays for the periods before.
   */
  async editOf(queries: Queries, place: ScalePlace, placed: PlacedScale): Promise<Edit> {
    const before = await this.placements.atPlace(queries, place);
    const after = await this.placements.inOrder(queries, [
      ...before.filter(({ fromPeriodId }) => fromPeriodId !== placed.fromPeriodId),
      placed,
    ]);
    const expected = revisionOf(before.length > 0 ? before : null);
    return { kind: 'scale-place', id: scalePlaceId(place), expected, after };
  }
}
