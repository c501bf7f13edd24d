import { isBlank } from '#core/posting';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const gradeMissing: AuditRule = {
  id: 'grade-missing',
  version: 1,
  family: 'completeness',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Grade missing',
  why: 'A course without a grade leaves a hole in the report card and on the transcript.',
  messages: { missing: '{item} is expected and nothing is posted.' },

  *check({ grades }) {
    for (const grade of grades) {
      if (grade.withdrawnOn === null && isBlank(grade.mark)) {
        yield findingOn(grade, 'missing', { item: grade.item.name });
      }
    }
  },

  fix: {
    says: 'Post what is computed',
    mend: ({ proposal }) => proposal,
  },
};
