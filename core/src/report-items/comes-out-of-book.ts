import type { Period } from '#core/calendar';
import type { ReportItem } from './report-item.js';

/** An item as far as it says where its value comes from. */
export type BookItem = Pick<ReportItem, 'id' | 'source' | 'kind' | 'categoryId' | 'periodKind'>;

/**
 * Whether what the grade book comes to in a period is the computed grade of an item: it is of the book and of such periods; an
 * exam or conduct only where it names its category.
 */
export function comesOutOfBook(
  { source, kind, categoryId, periodKind }: BookItem,
  period: Pick<Period, 'kind'>,
): boolean {
  if (source !== 'gradeBook' || periodKind !== period.kind) return false;
  return categoryId !== null || (kind !== 'exam' && kind !== 'conduct');
}
