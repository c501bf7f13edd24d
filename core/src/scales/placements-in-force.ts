import type { Day } from '#core/calendar';
import type { ScalePlacement } from './scale-in-force.js';

/** Where a scale can be put in force; only the fields of its kind are set. */
export type ScalePlace = Omit<ScalePlacement, 'id' | 'scaleId' | 'isLocked'>;

/** What holds at a place from a day on: a scale, or with null that the place inherits again. */
export interface DatedPlacement extends Omit<ScalePlacement, 'scaleId'> {
  readonly scaleId: number | null;
  /** The first period it holds for; null where it always has. */
  readonly fromPeriodId: number | null;
  /** First day of that period. */
  readonly fromDay: Day | null;
}

/**
 * The placements that count in a period: of each place the one that began last, no later than the period; of several that
 * began together the newest. A place that inherits again has none.
 */
export function placementsInForce(
  placements: readonly DatedPlacement[],
  period: { readonly startsOn: Day },
): ScalePlacement[] {
  const newest = new Map<string, DatedPlacement>();
  for (const placement of placements) {
    if (placement.fromDay !== null && placement.fromDay > period.startsOn) continue;
    const key = placeKey(placement);
    const other = newest.get(key);
    if (!other || beginsAfter(placement, other)) newest.set(key, placement);
  }
  return [...newest.values()].flatMap(({ scaleId, fromPeriodId: _period, fromDay: _day, ...placement }) =>
    scaleId === null ? [] : [{ ...placement, scaleId }],
  );
}

/** By this a place is the same place. */
export function placeKey({ kind, schoolId, department, level, courseId, sectionId }: ScalePlace): string {
  return JSON.stringify([kind, schoolId, department, level, courseId, sectionId]);
}

function beginsAfter(one: DatedPlacement, other: DatedPlacement): boolean {
  const [a, b] = [one.fromDay ?? '', other.fromDay ?? ''];
  return a === b ? one.id > other.id : a > b;
}
