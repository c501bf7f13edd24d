import type { AuditRule } from './audit-rule.js';
import { assignmentOverHalf } from './rules/assignment-over-half.js';
import { bookNotCalculated } from './rules/book-not-calculated.js';
import { calculationNotSet } from './rules/calculation-not-set.js';
import { codeSwitchedOff } from './rules/code-switched-off.js';
import { codeWithPercent } from './rules/code-with-percent.js';
import { commentMissing } from './rules/comment-missing.js';
import { commentNamesAnotherStudent } from './rules/comment-names-another-student.js';
import { commentNotTaken } from './rules/comment-not-taken.js';
import { commentTooLong } from './rules/comment-too-long.js';
import { commentUnfinished } from './rules/comment-unfinished.js';
import { commentsAllAlike } from './rules/comments-all-alike.js';
import { compositeDiffersFromParts } from './rules/composite-differs-from-parts.js';
import { computedChangedSincePosted } from './rules/computed-changed-since-posted.js';
import { courseWithoutCredits } from './rules/course-without-credits.js';
import { crowdingAboveCutOff } from './rules/crowding-above-cut-off.js';
import { dueOutsidePeriod } from './rules/due-outside-period.js';
import { enrolledTwice } from './rules/enrolled-twice.js';
import { exemptNotAllowed } from './rules/exempt-not-allowed.js';
import { gradeMissing } from './rules/grade-missing.js';
import { gradeNotExpected } from './rules/grade-not-expected.js';
import { gradeOnWithdrawnStudent } from './rules/grade-on-withdrawn-student.js';
import { hoursMissing } from './rules/hours-missing.js';
import { incompletePastDeadline } from './rules/incomplete-past-deadline.js';
import { internalNotePublic } from './rules/internal-note-public.js';
import { itemWithoutWindow } from './rules/item-without-window.js';
import { labelNotOnScale } from './rules/label-not-on-scale.js';
import { labelWithoutPoints } from './rules/label-without-points.js';
import { lastDateAfterLastPresent } from './rules/last-date-after-last-present.js';
import { lastDateNeeded } from './rules/last-date-needed.js';
import { lastDateNotNeeded } from './rules/last-date-not-needed.js';
import { lastDateOutsideEnrollment } from './rules/last-date-outside-enrollment.js';
import { leftBeforeComing } from './rules/left-before-coming.js';
import { manyOverrides } from './rules/many-overrides.js';
import { neverAttendedNotOnFirstDay } from './rules/never-attended-not-on-first-day.js';
import { oneValueForAll } from './rules/one-value-for-all.js';
import { overrideWithoutReason } from './rules/override-without-reason.js';
import { percentAndLabelDisagree } from './rules/percent-and-label-disagree.js';
import { percentOutOfRange } from './rules/percent-out-of-range.js';
import { placeholderDate } from './rules/placeholder-date.js';
import { postedOutsideWindow } from './rules/posted-outside-window.js';
import { repeatedPastCredits } from './rules/repeated-past-credits.js';
import { roundNumbers } from './rules/round-numbers.js';
import { scaleWithGap } from './rules/scale-with-gap.js';
import { scoreAboveScale } from './rules/score-above-scale.js';
import { scoredNotPublished } from './rules/scored-not-published.js';
import { scoresWithoutWeight } from './rules/scores-without-weight.js';
import { sealedCopyDiffers } from './rules/sealed-copy-differs.js';
import { sectionWithoutScale } from './rules/section-without-scale.js';
import { sectionsWeightedDifferently } from './rules/sections-weighted-differently.js';
import { sheetNotSignedOff } from './rules/sheet-not-signed-off.js';
import { signedOffWithBlanks } from './rules/signed-off-with-blanks.js';
import { unlikeSisterSections } from './rules/unlike-sister-sections.js';
import { unmatchedGroup } from './rules/unmatched-group.js';
import { weightsNotHundred } from './rules/weights-not-hundred.js';
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
  exemptNotAllowed,
  commentMissing,
  commentTooLong,
  commentNotTaken,
  commentNamesAnotherStudent,
  labelWithoutPoints,
  zeroPosted,
  sheetNotSignedOff,
  signedOffWithBlanks,
  itemWithoutWindow,
  gradeNotExpected,
  enrolledTwice,
  leftBeforeComing,
  internalNotePublic,
  commentUnfinished,
  commentsAllAlike,
  sectionWithoutScale,
  scaleWithGap,
  calculationNotSet,
  weightsNotHundred,
  scoresWithoutWeight,
  unmatchedGroup,
  dueOutsidePeriod,
  assignmentOverHalf,
  scoredNotPublished,
  scoreAboveScale,
  bookNotCalculated,
  sectionsWeightedDifferently,
  courseWithoutCredits,
  repeatedPastCredits,
  sealedCopyDiffers,
  oneValueForAll,
  manyOverrides,
  crowdingAboveCutOff,
  roundNumbers,
  unlikeSisterSections,
];

/** The same by their ids, which are permanent: whatever was found by one is told in its words. */
export const ruleById: ReadonlyMap<string, AuditRule> = new Map(auditRules.map((rule) => [rule.id, rule]));

/** Those that judge one grade by itself: a grade sheet asks them while it is typed. */
export const gradeRules: readonly AuditRule[] = auditRules.filter(({ scope }) => scope === 'grade');

/** What a sheet shows by itself: a blank says enough without a rule that tells of it. */
export const shownBySheet: ReadonlySet<string> = new Set(['grade-missing']);
