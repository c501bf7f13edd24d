import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { sheetsOf } from '../sheets-of.js';

export const commentsAllAlike: AuditRule = {
  id: 'comments-all-alike',
  version: 1,
  family: 'comments',
  scope: 'sheet',
  severity: 'informs',
  summary: 'One comment for all',
  why: 'Families compare; a comment that everybody has tells none of them anything about their child.',
  messages: {
    same: 'Is there a reason why all {students} comments of {section} are the same?',
  },

  // Fewer are a group in which the same may be so of all.
  threshold: { says: 'Fewest comments that are compared', usual: 10, least: 3, most: 100 },

  *check(snapshot, fewest) {
    for (const sheet of sheetsOf(snapshot)) {
      const comments = sheet.grades.map(({ mark }) => mark.comment.trim()).filter((comment) => comment !== '');
      if (comments.length < fewest || new Set(comments).size > 1) continue;
      yield findingOnSheet(sheet, 'same', { section: sheet.section.name, students: String(comments.length) });
    }
  },
};
