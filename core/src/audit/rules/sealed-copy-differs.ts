import { compareDecimals, formatAtLeast, type Percent } from '#core/numbers';
import { showMark } from '../show-mark.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const sealedCopyDiffers: AuditRule = {
  id: 'sealed-copy-differs',
  version: 1,
  family: 'transcript',
  scope: 'grade',
  severity: 'warns',
  summary: 'Sealed copy differs',
  why: 'What was sealed stands on the transcript, and the grade says something else by now.',
  messages: {
    differs: '{sealed} was sealed; {posted} is posted now.',
  },

  *check({ grades, sealed }) {
    const lines = new Map(sealed.map((line) => [`${line.enrollmentId}/${line.itemId}`, line]));
    for (const grade of grades) {
      const line = lines.get(`${grade.enrollmentId}/${grade.item.id}`);
      if (!line) continue;
      const { percent, label, code } = grade.mark;
      const isSame = (code ?? label ?? '') === line.mark && sameOrNull(percent, line.percent);
      if (isSame) continue;
      const was = [line.percent && formatAtLeast(line.percent, 0), line.mark].filter(Boolean).join(' ');
      yield findingOn(grade, 'differs', { sealed: was, posted: showMark(grade.mark) || 'nothing' });
    }
  },
};

function sameOrNull(a: Percent | null, b: Percent | null): boolean {
  return a === null || b === null ? a === b : compareDecimals(a, b) === 0;
}
