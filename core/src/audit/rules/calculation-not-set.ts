import { findingOnSection, type AuditRule } from '../audit-rule.js';

export const calculationNotSet: AuditRule = {
  id: 'calculation-not-set',
  version: 1,
  family: 'set-up',
  scope: 'section',
  settledIn: 'calculation',
  severity: 'warns',
  summary: 'No calculation set',
  why: 'Where nobody said how the grade book counts, what it comes to is how a plain one would count.',
  messages: {
    none: '{item} of {section} comes out of the grade book, and nobody set how it is calculated.',
  },

  *check({ sections }) {
    for (const section of sections) {
      const sheet = section.sheets.find(({ item }) => item.isOfBook);
      const isUsed = section.assignments.some(({ scored, isCounted }) => scored > 0 && isCounted);
      if (!sheet || !isUsed || section.policy !== null) continue;
      yield findingOnSection(section, 'none', { item: sheet.item.name, section: section.name });
    }
  },
};
