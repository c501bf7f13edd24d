import { otherNamesIn } from '#core/posting';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const commentNamesAnotherStudent: AuditRule = {
  id: 'comment-names-another-student',
  version: 1,
  family: 'comments',
  scope: 'grade',
  severity: 'warns',
  summary: 'Comment names another student',
  why: 'A comment about one student that names another was likely meant for the other, and tells a family of somebody else’s child.',
  messages: {
    names: 'The comment names {names}, another student of this section.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { comment } = grade.mark;
      if (comment === '') continue;
      const names = otherNamesIn(comment, grade.named, grade.classmates);
      if (names.length > 0) yield findingOn(grade, 'names', { names: names.join(', ') });
    }
  },
};
