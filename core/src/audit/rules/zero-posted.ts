import { findingOn, type AuditRule } from '../audit-rule.js';

export const zeroPosted: AuditRule = {
  id: 'zero-posted',
  version: 1,
  family: 'pattern',
  scope: 'grade',
  severity: 'informs',
  summary: 'Zero posted',
  why: 'A zero is often work that was never entered; sometimes it is meant.',
  messages: {
    zero: 'Zero is posted. Is it meant, or was nothing entered?',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { percent, code } = grade.mark;
      // Where the work comes to nothing, nothing is what is meant.
      if (grade.computed?.units === 0n) continue;
      // A scale of levels has 0 for what was not handed in.
      if (grade.scale.highestLevel !== null || code !== null) continue;
      if (percent !== null && percent.units === 0n) yield findingOn(grade, 'zero', {});
    }
  },
};
