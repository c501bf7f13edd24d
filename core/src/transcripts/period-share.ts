import type { Period } from '#core/calendar';
import type { Credits } from '#core/numbers';
import { creditShares } from './credit-shares.js';

/**
 * The part of a course's credits that falls to a period: dealt out over the periods of its kind that the section runs
 * through. `siblings` are the school's periods of that kind, in order. Nothing where the section does not run through it.
 */
export function periodShare(
  credits: Credits,
  runs: { readonly startsOn: string; readonly endsOn: string },
  period: Pick<Period, 'id'>,
  siblings: readonly Pick<Period, 'id' | 'startsOn' | 'endsOn'>[],
): Credits {
  const own = siblings.filter(({ startsOn, endsOn }) => runs.startsOn <= startsOn && endsOn <= runs.endsOn);
  return creditShares(credits, own.length)[own.findIndex(({ id }) => id === period.id)] ?? { units: 0n, digits: 0 };
}
