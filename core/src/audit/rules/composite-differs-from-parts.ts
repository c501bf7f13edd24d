import { isOverride } from '#core/posting';
import { showMark } from '../show-mark.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const compositeDiffersFromParts: AuditRule = {
  id: 'composite-differs-from-parts',
  version: 1,
  family: 'agreement',
  scope: 'grade',
  severity: 'warns',
  summary: 'Composite differs from its parts',
  why: 'A semester grade that its quarters and exam do not come to is asked about by every family that adds them up.',
  messages: {
    differs: '{mark} is posted, but the parts of {item} come to {proposed}, and no reason is given.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { mark, proposal, item, withdrawnOn } = grade;
      if (!item.isComposite || withdrawnOn !== null || !isOverride(mark, proposal)) continue;
      if (mark.overrideReason.trim() !== '') continue;
      yield findingOn(grade, 'differs', { mark: showMark(mark), item: item.name, proposed: showMark(proposal!) });
    }
  },

  fix: {
    says: 'Post what is computed',
    mend: ({ proposal }) => proposal,
  },
};
