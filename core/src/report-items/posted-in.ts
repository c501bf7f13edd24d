import { daysBetween, ordinalOf, type Period } from '#core/calendar';
import type { ReportItem } from './report-item.js';

/** Whether an item is posted in a period: its kind, and its place among those of its kind in the year. */
export function isPostedIn<P extends Period>(
  item: Pick<ReportItem, 'periodKind' | 'ordinals'>,
  periods: readonly P[],
  period: P,
): boolean {
  if (item.periodKind !== period.kind) return false;
  return item.ordinals === null || item.ordinals.includes(ordinalOf(periods, period));
}

/** The period that an item is posted in, the given one or else the nearest to it, of equals the later; undefined where it is posted in none. */
export function nearestPostedIn<P extends Period>(
  item: Pick<ReportItem, 'periodKind' | 'ordinals'>,
  periods: readonly P[],
  period: P,
): P | undefined {
  const [nearest] = periods
    .filter((each) => isPostedIn(item, periods, each))
    .toSorted((a, b) => daysApart(a, period) - daysApart(b, period) || b.endsOn.localeCompare(a.endsOn));
  return nearest;
}

/** Days from the end of the earlier to the beginning of the later; 0 where they share days. */
function daysApart(a: Period, b: Period): number {
  return Math.max(0, daysBetween(a.endsOn, b.startsOn), daysBetween(b.endsOn, a.startsOn));
}
