import { daysBetween, type Day, type Period } from '#core/calendar';
import type { Credits } from '#core/numbers';
import { creditShares } from './credit-shares.js';

interface Days {
  readonly startsOn: Day;
  readonly endsOn: Day;
}

/**
 * The part of a course's credits that falls to a period: dealt out over the periods of its kind that the section runs
 * in, even for a few days, so that the shares over all periods add up to the credits, whatever days the section runs.
 * `siblings` are the school's periods of that kind, in order. Nothing where the section does not run in the period.
 */
export function periodShare(
  credits: Credits,
  runs: Days,
  period: Pick<Period, 'id'>,
  siblings: readonly (Pick<Period, 'id'> & Days)[],
): Credits {
  const own = siblings.filter((sibling) => sharesDays(runs, sibling));
  return creditShares(credits, own.length)[own.findIndex(({ id }) => id === period.id)] ?? { units: 0n, digits: 0 };
}

function sharesDays(one: Days, other: Days): boolean {
  return daysBetween(one.startsOn, other.endsOn) >= 0 && daysBetween(other.startsOn, one.endsOn) >= 0;
}
