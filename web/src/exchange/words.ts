import type { ExchangeFile, ExchangeOutcome, PlannedExchangeRow } from '#core/exchange';

export const fileNames: Record<ExchangeFile, string> = {
  orgs: 'Schools',
  academicSessions: 'Periods',
  users: 'People',
  roles: 'Roles',
  demographics: 'Dates of birth',
  courses: 'Courses',
  classes: 'Sections',
  enrollments: 'Enrollments',
  categories: 'Categories',
  lineItems: 'Assignments',
  results: 'Scores',
  scoreScales: 'Scales',
};

export const outcomeNames: Record<ExchangeOutcome, string> = {
  new: 'new',
  changed: 'changed',
  same: 'the same',
  delete: 'to be deleted',
  left: 'skipped',
  refuse: 'refused',
};

/** The colour in which each is said. */
export const outcomeInks: Record<ExchangeOutcome, string> = {
  new: 'text-eucalypt',
  changed: 'text-eucalypt',
  same: 'text-quiet',
  delete: 'text-wattle',
  left: 'text-quiet',
  refuse: 'text-waratah',
};

/** What a row is about, by the fields that people know. */
export function sayRow({ row }: PlannedExchangeRow): string {
  const { title, name, givenName, familyName, userSourcedId, classSourcedId, studentSourcedId, lineItemSourcedId } =
    row;
  if (familyName) return `${familyName}, ${givenName}`;
  const both = [userSourcedId ?? studentSourcedId, classSourcedId ?? lineItemSourcedId].filter(
    (id) => id !== undefined,
  );
  return title ?? name ?? (both.length > 0 ? both.join(' in ') : (row['sourcedId'] ?? ''));
}

/** Why a row is not taken, or what in it differs from what is here. */
export function sayWhy({ faults, changes, row }: PlannedExchangeRow): string {
  if (faults.length > 0) return faults.map(({ field, says }) => `${field}: ${says}.`).join(' ');
  return changes.map((field) => `${field} becomes “${row[field]}”`).join(', ');
}
