import { commentFault } from '#core/report-items';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const commentNotTaken: AuditRule = {
  id: 'comment-not-taken',
  version: 1,
  family: 'comments',
  scope: 'grade',
  severity: 'warns',
  summary: 'Comment where none is taken',
  why: 'A comment of an item without comments is shown to nobody.',
  messages: {
    unread: '{item} takes no comment, but one is there.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { item, mark, scale } = grade;
      if (commentFault(item, mark, scale.bands) === 'comment-not-taken')
        yield findingOn(grade, 'unread', { item: item.name });
    }
  },
};
