import type { DuplicateReason, FilledField, MergeObstacle } from '#core/people';
import type { DuplicateRecordReply } from '#contract/people';
import { counted } from '#contract/messages';

export const reasonWords: Readonly<Record<DuplicateReason, string>> = {
  'same-number': 'same number',
  'same-birth-date': 'born on the same day, names alike',
  'same-address': 'same address, names alike',
  'same-name': 'same name, a day of birth is missing',
};

export const filledWords: Readonly<Record<FilledField, string>> = {
  number: 'number',
  preferredName: 'preferred name',
  email: 'e-mail',
  birthDate: 'day of birth',
  yearGroup: 'year',
  enteredOn: 'day of entry',
  leftOn: 'day of leaving',
  pronoun: 'pronoun',
};

/** Why two records stay two, in a sentence. */
export function sayObstacle(obstacle: MergeObstacle): string {
  if (obstacle.code === 'kinds-differ') return 'One is a student and the other one of the staff.';
  if (obstacle.code === 'both-have-accounts') return 'Both have an account.';
  return `Both have work in ${obstacle.section}: move or remove it in one of them first.`;
}

/** "Reed, Tamsin". */
export const nameOf = ({ cells }: DuplicateRecordReply) => `${cells.familyName}, ${cells.givenName}`;

/** What tells a record from another: "S10028, 8 sections", and the school where the two are not of one. */
export function factsOf({ cells, school, sections }: DuplicateRecordReply, other: DuplicateRecordReply): string {
  const place = school === other.school ? '' : school;
  return [cells.number, counted(sections, 'section'), place].filter(Boolean).join(', ');
}

/** The record that is kept unless somebody chooses the other: a roster's, else the one with more sections. */
export function likelierKept(one: DuplicateRecordReply, other: DuplicateRecordReply): DuplicateRecordReply {
  if (one.isOfRoster !== other.isOfRoster) return one.isOfRoster ? one : other;
  return other.sections > one.sections ? other : one;
}
