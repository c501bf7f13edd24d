import { commentFault } from '#core/report-items';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const commentMissing: AuditRule = {
  id: 'comment-missing',
  version: 1,
  family: 'comments',
  scope: 'grade',
  severity: 'warns',
  summary: 'Comment needed and missing',
  why: 'Families of students who do poorly are promised a word about it.',
  messages: {
    missing: 'Below {below} a comment is needed.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { item, mark, scale } = grade;
      if (commentFault(item, mark, scale.bands) === 'comment-needed')
        yield findingOn(grade, 'missing', { below: item.commentBelow ?? '' });
    }
  },
};
