import type { AuditRule } from './audit-rule.js';
import { codeWithPercent } from './rules/code-with-percent.js';
import { gradeMissing } from './rules/grade-missing.js';
import { gradeOnWithdrawnStudent } from './rules/grade-on-withdrawn-student.js';
import { labelNotOnScale } from './rules/label-not-on-scale.js';
import { lastDateNeeded } from './rules/last-date-needed.js';
import { percentAndLabelDisagree } from './rules/percent-and-label-disagree.js';

/** Every rule there is, in the order in which they are shown. */
export const auditRules: readonly AuditRule[] = [
  gradeMissing,
  percentAndLabelDisagree,
  labelNotOnScale,
  codeWithPercent,
  lastDateNeeded,
  gradeOnWithdrawnStudent,
];
