import { findingOn, type AuditRule } from '../audit-rule.js';

export const codeSwitchedOff: AuditRule = {
  id: 'code-switched-off',
  version: 1,
  family: 'agreement',
  scope: 'grade',
  severity: 'warns',
  summary: 'Code is switched off',
  why: 'A code that the district no longer uses is not explained on its transcripts any more.',
  messages: {
    off: '{code} ({meaning}) is posted, but it is switched off.',
  },

  *check({ grades, codes }) {
    for (const grade of grades) {
      const { code } = grade.mark;
      const known = code === null ? undefined : codes.get(code);
      if (known?.isOff) yield findingOn(grade, 'off', { code: known.code, meaning: known.meaning });
    }
  },
};
