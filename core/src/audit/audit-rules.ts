import type { AuditRule } from './audit-rule.js';
import { codeSwitchedOff } from './rules/code-switched-off.js';
import { codeWithPercent } from './rules/code-with-percent.js';
import { commentMissing } from './rules/comment-missing.js';
import { commentNamesAnotherStudent } from './rules/comment-names-another-student.js';
import { commentNotTaken } from './rules/comment-not-taken.js';
import { commentTooLong } from './rules/comment-too-long.js';
import { compositeDiffersFromParts } from './rules/composite-differs-from-parts.js';
import { computedChangedSincePosted } from './rules/computed-changed-since-posted.js';
import { gradeMissing } from './rules/grade-missing.js';
import { gradeOnWithdrawnStudent } from './rules/grade-on-withdrawn-student.js';
import { hoursMissing } from './rules/hours-missing.js';
import { incompletePastDeadline } from './rules/incomplete-past-deadline.js';
import { labelNotOnScale } from './rules/label-not-on-scale.js';
import { labelWithoutPoints } from './rules/label-without-points.js';
import { lastDateAfterLastPresent } from './rules/last-date-after-last-present.js';
import { lastDateNeeded } from './rules/last-date-needed.js';
import { lastDateNotNeeded } from './rules/last-date-not-needed.js';
import { lastDateOutsideEnrollment } from './rules/last-date-outside-enrollment.js';
import { neverAttendedNotOnFirstDay } from './rules/never-attended-not-on-first-day.js';
import { overrideWithoutReason } from './rules/override-without-reason.js';
import { percentAndLabelDisagree } from './rules/percent-and-label-disagree.js';
import { percentOutOfRange } from './rules/percent-out-of-range.js';
import { placeholderDate } from './rules/placeholder-date.js';
import { postedOutsideWindow } from './rules/posted-outside-window.js';
import { zeroPosted } from './rules/zero-posted.js';

/** Every rule there is, in the order in which they are shown. */
export const auditRules: readonly AuditRule[] = [
  gradeMissing,
  incompletePastDeadline,
  percentAndLabelDisagree,
  labelNotOnScale,
  percentOutOfRange,
  codeWithPercent,
  codeSwitchedOff,
  overrideWithoutReason,
  compositeDiffersFromParts,
  computedChangedSincePosted,
  lastDateNeeded,
  lastDateOutsideEnrollment,
  neverAttendedNotOnFirstDay,
  placeholderDate,
  lastDateAfterLastPresent,
  lastDateNotNeeded,
  hoursMissing,
  postedOutsideWindow,
  gradeOnWithdrawnStudent,
  commentMissing,
  commentTooLong,
  commentNotTaken,
  commentNamesAnotherStudent,
  labelWithoutPoints,
  zeroPosted,
];
