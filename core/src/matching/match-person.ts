import type { Day } from '#core/calendar';
import { foldName } from './name-forms.js';

/** Somebody on a learning platform. */
export interface TheirPerson {
  /** The number under which the information system knows the person, where the platform has it. */
  readonly identifier: string | null;
  readonly email: string | null;
  readonly givenName: string;
  readonly familyName: string;
  readonly birthDate: Day | null;
}

export interface OurPerson {
  readonly id: number;
  readonly sourcedId: string;
  readonly email: string;
  readonly givenName: string;
  readonly familyName: string;
  readonly birthDate: Day | null;
}

/** Who it is. Only a number or an address that nobody else has is taken by itself; a name is proposed. */
export type PersonMatch =
  | { readonly state: 'joined'; readonly personId: number; readonly by: 'identifier' | 'email' }
  | { readonly state: 'proposed'; readonly personId: number; readonly by: 'nameAndBirthDate' | 'name' }
  /** The number says one person and the address another, or several have the same name and day of birth. */
  | { readonly state: 'conflicting'; readonly personIds: readonly number[]; readonly by: 'twoIds' | 'sameName' }
  | { readonly state: 'unmatched' };

/** Our people by all that a platform may know them by, so that thousands are found without comparing each with each. */
export interface PeopleIndex {
  readonly byIdentifier: ReadonlyMap<string, OurPerson>;
  readonly byEmail: ReadonlyMap<string, OurPerson>;
  readonly byName: ReadonlyMap<string, readonly OurPerson[]>;
}

export function indexPeople(people: readonly OurPerson[]): PeopleIndex {
  const byName = new Map<string, OurPerson[]>();
  for (const person of people) {
    const key = nameKey(person);
    const same = byName.get(key);
    if (same) same.push(person);
    else byName.set(key, [person]);
  }
  return {
    byIdentifier: new Map(people.map((person) => [idKey(person.sourcedId), person])),
    byEmail: new Map(people.map((person) => [idKey(person.email), person])),
    byName,
  };
}

/** By number, else by e-mail address, else by name and date of birth. */
export function matchPerson(theirs: TheirPerson, index: PeopleIndex): PersonMatch {
  const byNumber = theirs.identifier ? index.byIdentifier.get(idKey(theirs.identifier)) : undefined;
  const byEmail = theirs.email ? index.byEmail.get(idKey(theirs.email)) : undefined;
  if (byNumber && byEmail && byNumber.id !== byEmail.id)
    return { state: 'conflicting', personIds: [byNumber.id, byEmail.id], by: 'twoIds' };
  if (byNumber) return { state: 'joined', personId: byNumber.id, by: 'identifier' };
  if (byEmail) return { state: 'joined', personId: byEmail.id, by: 'email' };
  return byNameAndBirth(theirs, index.byName.get(nameKey(theirs)) ?? []);
}

function byNameAndBirth({ birthDate }: TheirPerson, sameName: readonly OurPerson[]): PersonMatch {
  const born = birthDate === null ? [] : sameName.filter((each) => each.birthDate === birthDate);
  const isBorn = born.length > 0;
  const candidates = isBorn ? born : sameName.filter((each) => birthDate === null || each.birthDate === null);
  const [one, ...others] = candidates;
  if (!one) return { state: 'unmatched' };
  if (others.length > 0) return { state: 'conflicting', personIds: candidates.map(({ id }) => id), by: 'sameName' };
  return { state: 'proposed', personId: one.id, by: isBorn ? 'nameAndBirthDate' : 'name' };
}

function idKey(id: string): string {
  return id.trim().toLowerCase();
}

function nameKey({ givenName, familyName }: { givenName: string; familyName: string }): string {
  return `${foldName(familyName)}|${foldName(givenName)}`;
}
