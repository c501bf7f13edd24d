import { formatDecimal } from '#core/numbers';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const gradeOnWithdrawnStudent: AuditRule = {
  id: 'grade-on-withdrawn-student',
  version: 1,
  family: 'eligibility',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Grade on a withdrawn student',
  why: 'Who has left the section is not graded; one that is posted would reach the transcript.',
  messages: { graded: 'Withdrawn on {withdrawnOn}, yet {mark} is posted.' },

  *check({ grades }) {
    for (const grade of grades) {
      const { percent, label } = grade.mark;
      if (grade.withdrawnOn === null || (percent === null && label === null)) continue;
      const mark = [percent && `${formatDecimal(percent)} %`, label].filter(Boolean).join(' ');
      yield findingOn(grade, 'graded', { withdrawnOn: grade.withdrawnOn, mark });
    }
  },

  fix: {
    says: 'Clear the grade',
    mend: ({ mark }) => ({ ...mark, percent: null, label: null, overrideReason: '' }),
  },
};
