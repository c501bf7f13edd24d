import type { AuditRuleReply, FoundReply } from '#contract/audit';

interface PlaceToOpen {
  /** Below the school and the period. */
  readonly path: string;
  readonly says: string;
}

const setUpPlaces: Readonly<Record<NonNullable<AuditRuleReply['settledIn']>, PlaceToOpen>> = {
  calculation: { path: 'calculation', says: 'Open the calculation' },
  matches: { path: 'matches?view=group', says: 'Open the matches' },
  scales: { path: 'scales', says: 'Open the scales' },
};

/** Where what a finding is about is looked at and set right, and what the button there says. */
export function placeOfFinding(
  { scope, settledIn }: Pick<AuditRuleReply, 'scope' | 'settledIn'>,
  { openSectionId, itemId, enrollmentId, mark }: FoundReply,
): PlaceToOpen {
  if (settledIn) return setUpPlaces[settledIn];
  switch (scope) {
    case 'grade':
      // A grade that no sheet expects has none to be opened on.
      return mark
        ? { path: `grade-sheets/${openSectionId}/${itemId}?student=${enrollmentId}`, says: 'Open the grade' }
        : { path: 'report-items', says: 'Open the report items' };
    case 'sheet':
      return { path: `grade-sheets/${openSectionId}/${itemId}`, says: 'Open the sheet' };
    case 'section':
      return { path: `grade-books/${openSectionId}`, says: 'Open the grade book' };
    case 'student':
      return { path: `enrollments?section=${openSectionId}`, says: 'Open the enrollments' };
    case 'course':
      return { path: 'courses', says: 'Open the courses' };
    case 'item':
      return { path: 'calendar', says: 'Open the calendar' };
  }
}
