import type { Mark } from '#core/posting';
import { orderBands, type Band } from '#core/scales';
import type { ReportItem } from './report-item.js';

export type CommentFault = 'comment-not-taken' | 'comment-too-long' | 'comment-needed';

/**
 * What an item has against a comment. One is needed where the posted label stands below the item's; a code needs none.
 * Labels stand in the order of their cut-offs, those without one as they are written.
 */
export function commentFault(
  { commentRule, commentBelow, commentLength }: Pick<ReportItem, 'commentRule' | 'commentBelow' | 'commentLength'>,
  { comment, label }: Pick<Mark, 'comment' | 'label'>,
  bands: readonly Band[],
): CommentFault | undefined {
  if (comment !== '' && commentRule === 'none') return 'comment-not-taken';
  if (comment.length > commentLength) return 'comment-too-long';
  if (commentRule !== 'requiredBelow' || comment.trim() !== '' || label === null) return undefined;
  const labels = orderBands(bands).map((band) => band.label);
  const [own, limit] = [labels.indexOf(label), labels.indexOf(commentBelow ?? '')];
  return limit !== -1 && own > limit ? 'comment-needed' : undefined;
}
