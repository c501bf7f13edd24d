import { findingOnSection, type AuditRule } from '../audit-rule.js';

export const bookNotCalculated: AuditRule = {
  id: 'book-not-calculated',
  version: 1,
  family: 'set-up',
  scope: 'section',
  severity: 'warns',
  summary: 'Grade book that cannot be calculated',
  why: 'What is computed is then out of date, and nobody sees it.',
  messages: {
    problem: 'The grade book of {section} could not be calculated ({problem}).',
  },

  *check({ sections }) {
    for (const section of sections) {
      const { bookProblem, name } = section;
      if (bookProblem !== null) yield findingOnSection(section, 'problem', { section: name, problem: bookProblem });
    }
  },
};
