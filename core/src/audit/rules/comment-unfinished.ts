import { findingOn, type AuditRule } from '../audit-rule.js';

export const commentUnfinished: AuditRule = {
  id: 'comment-unfinished',
  version: 1,
  family: 'comments',
  scope: 'grade',
  severity: 'warns',
  summary: 'Comment left unfinished',
  why: 'A gap that was to be filled in later would be printed as it stands.',
  messages: {
    gap: 'The comment has “{words}” in it, as if something were still to come.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { comment } = grade.mark;
      const words = (leftForLater.exec(comment) ?? toBeFilledIn.exec(comment))?.[0];
      if (words !== undefined) yield findingOn(grade, 'gap', { words });
    }
  },
};

/** In capitals, as people leave for themselves. */
const leftForLater = /\b(?:TODO|TBD|TBC|X{3,})\b/u;
/** What stock comments and forms leave to be filled in. */
const toBeFilledIn = /\[\s*(?:name|pronoun|student|date|comment)\s*\]|\{\s*\w+\s*\}|\?{3,}|_{4,}/iu;
