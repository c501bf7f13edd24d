import { mostPoints } from '#core/calculation';
import { compareDecimals, parseDecimal } from '#core/numbers';
import type { AssignmentFacts, OurClass, OurSectionBook, TheirAssignment } from './run-plan.js';
import type { RunReason } from './run-reasons.js';

/** Longer names do not fit a grade book's head. */
export const longestAssignmentName = 80;

export interface CheckedAssignment {
  readonly reasons: readonly RunReason[];
  /** What it would be here; null where a fact is missing. */
  readonly facts: AssignmentFacts | null;
}

/** Whether an assignment is ready to be carried over, and if not, every reason why not. */
export function checkAssignment(theirs: TheirAssignment, ours: OurClass, section: OurSectionBook): CheckedAssignment {
  const category = categoryOf(theirs.groupKey, ours);
  const given = givenTo(theirs, ours, section);
  const possible = theirs.possible === null ? undefined : parseDecimal(theirs.possible);
  const reasons: RunReason[] = [
    ...when(!theirs.isMarked, 'not-marked'),
    ...when(!theirs.isPublished, 'unpublished'),
    ...when(!theirs.isGraded, 'ungraded'),
    ...dateReasons(theirs, ours),
    ...when(possible === undefined || possible.units <= 0n, 'no-points'),
    ...when(
      possible !== undefined && (compareDecimals(possible, mostPoints) > 0 || possible.digits > 2),
      'too-many-points',
      theirs.possible ?? '',
    ),
    ...when(theirs.name.trim() === '', 'name-missing'),
    ...when(theirs.name.length > longestAssignmentName, 'name-too-long', String(theirs.name.length)),
    ...category.reasons,
    ...given.reasons,
    ...when(
      theirs.results.every(({ points: score }) => score === null),
      'no-scores-yet',
    ),
  ];
  if (theirs.possible === null || theirs.dueOn === null || category.id === null) return { reasons, facts: null };
  const facts: AssignmentFacts = {
    name: theirs.name.trim(),
    possible: theirs.possible,
    dueOn: theirs.dueOn,
    categoryId: category.id,
    givenTo: given.enrollmentIds,
  };
  return { reasons, facts };
}

function dateReasons({ dueOn }: TheirAssignment, { period }: OurClass): RunReason[] {
  if (dueOn === null) return [{ code: 'no-date' }];
  return when(dueOn < period.startsOn || dueOn > period.endsOn, 'other-period', dueOn);
}

function categoryOf(groupKey: string | null, ours: OurClass): { id: number | null; reasons: RunReason[] } {
  const group = groupKey === null ? undefined : ours.groups.get(groupKey);
  if (group?.decision === 'ignored') return { id: null, reasons: [{ code: 'group-ignored' }] };
  if (group?.target != null) return { id: group.target, reasons: [] };
  const { defaultCategoryId } = ours;
  if (defaultCategoryId !== null) return { id: defaultCategoryId, reasons: [{ code: 'default-category' }] };
  return { id: null, reasons: [{ code: 'group-open', ...(groupKey === null ? {} : { about: groupKey }) }] };
}

/** Those it was given to who are in our section; others say so with their own scores. */
function givenTo(
  theirs: TheirAssignment,
  { people }: OurClass,
  { students }: OurSectionBook,
): { enrollmentIds: number[] | null; reasons: RunReason[] } {
  if (theirs.givenTo === null) return { enrollmentIds: null, reasons: [] };
  const enrollmentIds = theirs.givenTo
    .flatMap((key) => {
      const student = students.get(people.get(key)?.target ?? 0);
      return student ? [student.enrollmentId] : [];
    })
    .toSorted((a, b) => a - b);
  if (enrollmentIds.length === 0) return { enrollmentIds: null, reasons: [{ code: 'given-to-nobody' }] };
  return { enrollmentIds, reasons: [{ code: 'given-to-some', about: String(enrollmentIds.length) }] };
}

function when(holds: boolean, code: RunReason['code'], about?: string): RunReason[] {
  if (!holds) return [];
  return [about === undefined ? { code } : { code, about }];
}
