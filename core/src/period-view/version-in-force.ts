import type { Day } from '#core/calendar';
import { placementsInForce, type DatedPlacement, type ScalePlacement } from '#core/scales';

/** A version of a scale, and the first day of the period from which on it is in force. */
export interface DatedVersion {
  readonly scaleId: number;
  readonly number: number;
  readonly fromDay: Day;
}

/**
 * The version of each scale that a period uses, by scale: the one that began last, no later than the period; of several
 * that began together the newest. A scale whose first version begins later is not there.
 */
export function versionsInForce<Version extends DatedVersion>(
  versions: readonly Version[],
  period: { readonly startsOn: Day },
): ReadonlyMap<number, Version> {
  const found = new Map<number, Version>();
  for (const version of versions) {
    if (version.fromDay > period.startsOn) continue;
    const other = found.get(version.scaleId);
    const isNewer =
      !other || version.fromDay > other.fromDay || (version.fromDay === other.fromDay && version.number > other.number);
    if (isNewer) found.set(version.scaleId, version);
  }
  return found;
}

/** The placements that count in a period: those in force whose scale has begun by then. Until it has, a wider place counts. */
export function countedPlacements(
  placements: readonly DatedPlacement[],
  versions: readonly DatedVersion[],
  period: { readonly startsOn: Day },
): ScalePlacement[] {
  const begun = versionsInForce(versions, period);
  return placementsInForce(placements, period).filter(({ scaleId }) => begun.has(scaleId));
}
