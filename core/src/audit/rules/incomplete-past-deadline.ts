import { addDays } from '#core/calendar';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const incompletePastDeadline: AuditRule = {
  id: 'incomplete-past-deadline',
  version: 1,
  family: 'completeness',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Incomplete past its deadline',
  why: 'A code that should have become a grade by now would stand on the transcript for good.',
  messages: {
    lapsed: '{code} should have become {lapsesInto} on {deadline}.',
  },

  *check({ grades, codes, periodEndsOn, today }) {
    for (const grade of grades) {
      const { code } = grade.mark;
      const known = code === null ? undefined : codes.get(code);
      if (!known || known.lapsesInto === null || known.lapsesAfterDays === null) continue;
      const deadline = addDays(periodEndsOn, known.lapsesAfterDays);
      if (today > deadline)
        yield findingOn(grade, 'lapsed', { code: known.code, lapsesInto: known.lapsesInto, deadline });
    }
  },
};
