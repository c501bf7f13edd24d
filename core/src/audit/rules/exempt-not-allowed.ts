import { findingOn, type AuditRule } from '../audit-rule.js';

export const exemptNotAllowed: AuditRule = {
  id: 'exempt-not-allowed',
  version: 2,
  family: 'eligibility',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Exempt where the course does not allow it',
  why: 'Who is exempt is left out of composites and averages, which a course that everybody has to take does not permit.',
  messages: { exempt: '{code} ({meaning}) is posted, and the course does not allow a student to be exempt.' },

  *check({ grades, codes }) {
    for (const grade of grades) {
      const { code } = grade.mark;
      const known = code === null ? undefined : codes.get(code);
      if (known?.asPart !== 'leaves' || grade.allowsExempt) continue;
      // Who left has nothing to be exempt from; a pass stands for work that was done.
      if (grade.withdrawnOn !== null || known.triesCredit) continue;
      yield findingOn(grade, 'exempt', { code: known.code, meaning: known.meaning });
    }
  },
};
