import { compareDecimals, formatDecimal, fromDecimal, roundTo } from '#core/numbers';
import { showMark } from '../show-mark.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const computedChangedSincePosted: AuditRule = {
  id: 'computed-changed-since-posted',
  version: 1,
  family: 'agreement',
  scope: 'grade',
  severity: 'warns',
  summary: 'Computed grade changed after posting',
  why: 'Scores that came in after a grade was posted are in the grade book and not in the grade.',
  messages: {
    changed: '{now} is computed now; it was {before} when {mark} was posted.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { mark, computed, computedThen, withdrawnOn, item } = grade;
      if (withdrawnOn !== null || mark.percent === null || computed === null || computedThen === null) continue;
      const { digits, rounding } = item.precision;
      const [now, before] = [computed, computedThen].map((value) => roundTo(fromDecimal(value), digits, rounding));
      if (compareDecimals(now!, before!) === 0) continue;
      // Posted is what is computed now: somebody has seen it.
      if (compareDecimals(mark.percent, now!) === 0) continue;
      yield findingOn(grade, 'changed', {
        now: formatDecimal(now!),
        before: formatDecimal(before!),
        mark: showMark(mark),
      });
    }
  },

  fix: {
    says: 'Post what is computed',
    mend: ({ proposal }) => proposal,
  },
};
