import { ordinalOf, type Period } from '#core/calendar';
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
