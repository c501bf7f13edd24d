import type { Day } from '#core/calendar';
import { versionsInForce, type DatedVersion } from '#core/period-view';
import { deriveBands, type Band } from '#core/scales';
import type { ScaleRow } from './scales.repository.js';

/** A version of a scale as it is about to be. */
export interface NextVersion {
  readonly scaleId: number;
  readonly fromPeriodId: number;
  readonly fromDay: Day;
  readonly bands: readonly Band[];
}

interface KnownVersion extends DatedVersion {
  readonly fromPeriodId: number;
  readonly bands: readonly Band[];
}

/**
 * A new version of a scale, and those that the scales tied to it get with it, one after the other. A scale that begins later
 * than the new version follows from its own beginning, not before: it is not in use until then. Where its bands come out as
 * they are, it gets no version.
 */
export function followingVersions(
  scales: readonly ScaleRow[],
  versions: readonly KnownVersion[],
  next: NextVersion,
): NextVersion[] {
  const known = [...versions, { ...next, number: Number.MAX_SAFE_INTEGER }];
  const followers = scales.filter(({ tie }) => tie?.toId === next.scaleId);
  return [
    next,
    ...followers.flatMap(({ id, tie }): NextVersion[] => {
      const own = versions.filter(({ scaleId }) => scaleId === id).toSorted((a, b) => (a.fromDay < b.fromDay ? -1 : 1));
      const { fromPeriodId, fromDay } = own[0] && own[0].fromDay > next.fromDay ? own[0] : next;
      const inForce = versionsInForce(known, { startsOn: fromDay });
      const bands = deriveBands(inForce.get(next.scaleId)!.bands, tie!.shift);
      if (isSame(inForce.get(id)?.bands, bands)) return [];
      return followingVersions(scales, known, { scaleId: id, fromPeriodId, fromDay, bands });
    }),
  ];
}

function isSame(one: readonly Band[] | undefined, other: readonly Band[]): boolean {
  const written = (bands: readonly Band[]) =>
    JSON.stringify(bands, (_key, value: unknown) => (typeof value === 'bigint' ? String(value) : value));
  return one !== undefined && written(one) === written(other);
}
