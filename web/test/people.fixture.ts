import type { PersonCells } from '#core/people';
import type { PersonRowReply } from '#contract/people';

/** A student of year 10 without an address. */
export const personCells = (number: string, over: Partial<PersonCells> = {}): PersonCells => ({
  number,
  familyName: `Family ${number}`,
  givenName: 'Ada',
  preferredName: '',
  kind: 'student',
  yearGroup: '10',
  birthDate: '',
  enteredOn: '',
  leftOn: '',
  pronoun: '',
  email: '',
  ...over,
});

export const personOf = (id: number, cells: PersonCells, over: Partial<PersonRowReply> = {}): PersonRowReply => ({
  id,
  revision: `r${id}`,
  cells,
  isOfRoster: false,
  sections: 0,
  seatsAfterLeaving: 0,
  ...over,
});
