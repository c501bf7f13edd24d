import { nowhere, type AuditRule } from '../audit-rule.js';

export const gradeNotExpected: AuditRule = {
  id: 'grade-not-expected',
  version: 1,
  family: 'eligibility',
  scope: 'grade',
  severity: 'warns',
  summary: 'Grade of an item that is not expected',
  why: 'What is posted where nothing is expected is on no sheet, and nobody sees it until it is somewhere it should not be.',
  messages: {
    course: '{shown} is posted for {item}, which the course does not report.',
    period: '{shown} is posted for {item}, which is not posted in such a period.',
  },

  *check({ strays }) {
    for (const { enrollmentId, itemId, item, by, shown } of strays)
      yield { ...nowhere, enrollmentId, itemId, message: by, data: { item, shown } };
  },
};
