import { findingOnSection, type AuditRule } from '../audit-rule.js';

export const scoresWithoutWeight: AuditRule = {
  id: 'scores-without-weight',
  version: 1,
  family: 'set-up',
  scope: 'section',
  settledIn: 'calculation',
  severity: 'warns',
  summary: 'Scores that do not count',
  why: 'Students work for it and see it in the grade book, and it changes nothing.',
  messages: {
    category: '{category} has scores in {section}, and its weight is 0 or missing.',
  },

  *check({ sections }) {
    for (const section of sections) {
      const { policy, assignments } = section;
      if (policy === null || policy.method === 'totalPoints') continue;
      const weighed = new Set(
        policy.categories.filter(({ weight }) => weight.units > 0n).map(({ categoryId }) => categoryId),
      );
      const names = assignments
        .filter(({ scored, isCounted, categoryId }) => scored > 0 && isCounted && !weighed.has(categoryId))
        .map(({ category }) => category)
        .toSorted();
      if (names.length === 0) continue;
      yield findingOnSection(section, 'category', { category: names[0]!, section: section.name });
    }
  },
};
