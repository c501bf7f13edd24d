import { isOverride } from '#core/posting';
import { showMark } from '../show-mark.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const overrideWithoutReason: AuditRule = {
  id: 'override-without-reason',
  version: 1,
  family: 'agreement',
  scope: 'grade',
  severity: 'warns',
  summary: 'Override without a reason',
  why: 'Whoever asks why a grade is not what was computed should find an answer beside it.',
  messages: {
    unexplained: '{mark} is posted, but {proposed} is computed, and no reason is given.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { mark, proposal, item, withdrawnOn } = grade;
      // composite-differs-from-parts speaks of composites
      if (item.isComposite || withdrawnOn !== null || !isOverride(mark, proposal)) continue;
      if (mark.overrideReason.trim() !== '') continue;
      yield findingOn(grade, 'unexplained', { mark: showMark(mark), proposed: showMark(proposal!) });
    }
  },

  fix: {
    says: 'Post what is computed',
    mend: ({ proposal }) => proposal,
  },
};
