import { commentFault } from '#core/report-items';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const commentTooLong: AuditRule = {
  id: 'comment-too-long',
  version: 1,
  family: 'comments',
  scope: 'grade',
  severity: 'warns',
  summary: 'Comment too long',
  why: 'The report card has room for so many characters; the rest would be cut.',
  messages: {
    long: 'The comment has {length} characters; {item} has room for {most}.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { item, mark, scale } = grade;
      if (commentFault(item, mark, scale.bands) === 'comment-too-long')
        yield findingOn(grade, 'long', {
          length: String(mark.comment.length),
          item: item.name,
          most: String(item.commentLength),
        });
    }
  },
};
