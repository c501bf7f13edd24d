import { findingOnSection, type AuditRule } from '../audit-rule.js';
import { compareText } from '../compare-text.js';

export const unmatchedGroup: AuditRule = {
  id: 'unmatched-group',
  version: 1,
  family: 'set-up',
  scope: 'section',
  settledIn: 'matches',
  severity: 'warns',
  summary: 'Unmatched group with scores',
  why: 'What a learning platform has in a group that is joined to no category never comes into the grade book, and the grade is worked out without it.',
  messages: {
    group: 'Scores on {platforms} in groups that are joined to no category: {scores} ({groups}). They do not count.',
    none: 'Scores on {platforms} that stand in no group: {scores}. They do not count.',
    both: 'Scores on {platforms} in no group, or in groups that are joined to no category ({groups}): {scores}. They do not count.',
  },

  *check({ sections }) {
    for (const section of sections) {
      const scored = section.unmatched.filter(({ scores }) => scores > 0);
      if (scored.length === 0) continue;
      const groups = onceEach(scored.flatMap(({ group }) => group ?? []));
      const data = {
        platforms: onceEach(scored.map(({ platform }) => platform)),
        scores: String(scored.reduce((sum, { scores }) => sum + scores, 0)),
      };
      const hasOther = scored.some(({ group }) => group === null);
      if (groups === '') yield findingOnSection(section, 'none', data);
      else yield findingOnSection(section, hasOther ? 'both' : 'group', { ...data, groups });
    }
  },
};

function onceEach(names: readonly string[]): string {
  return [...new Set(names)].toSorted(compareText).join(', ');
}
