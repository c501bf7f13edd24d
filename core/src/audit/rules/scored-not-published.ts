import { findingOnSection, type AuditRule } from '../audit-rule.js';

export const scoredNotPublished: AuditRule = {
  id: 'scored-not-published',
  version: 1,
  family: 'set-up',
  scope: 'section',
  severity: 'informs',
  summary: 'Scored and never published',
  why: 'What students and families cannot see, they cannot ask about until it has become a grade.',
  messages: {
    hidden: 'Assignments of {section} with scores that are not published: {count}, such as {name}.',
  },

  *check({ sections }) {
    for (const section of sections) {
      const hidden = section.assignments
        .filter(({ scored, isCounted, isPublished }) => scored > 0 && isCounted && !isPublished)
        .map(({ name }) => name)
        .toSorted();
      if (hidden.length === 0) continue;
      yield findingOnSection(section, 'hidden', {
        section: section.name,
        count: String(hidden.length),
        name: hidden[0]!,
      });
    }
  },
};
