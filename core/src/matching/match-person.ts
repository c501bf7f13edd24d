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
  /** The id of the roster's own system, and the number that people know the student by; platforms may have either. */
  readonly sourcedId: string;
  readonly number: string | null;
  readonly email: string;
  readonly givenName: string;
  readonly familyName: string;
  readonly birthDate: Day | null;
}

/**
 * Why nobody is taken: the number says one person and the address another; several of ours have the address, as brothers and
 * sisters do, or the name and the day of birth; several of theirs would be the same one of ours.
 */
export type PersonConflict = 'twoIds' | 'sameAddress' | 'sameName' | 'twoAccounts';

/** Who it is. Only a number or an address that nobody else has is taken by itself; a name is proposed. */
export type PersonMatch =
  | { readonly state: 'joined'; readonly personId: number; readonly by: 'identifier' | 'email' }
  | { readonly state: 'proposed'; readonly personId: number; readonly by: 'nameAndBirthDate' | 'name' }
  | { readonly state: 'conflicting'; readonly personIds: readonly number[]; readonly by: PersonConflict }
  | { readonly state: 'unmatched' };

/** Our people by all that a platform may know them by, so that thousands are found without comparing each with each. */
export interface PeopleIndex {
  readonly byIdentifier: ReadonlyMap<string, readonly OurPerson[]>;
  readonly byEmail: ReadonlyMap<string, readonly OurPerson[]>;
  readonly byName: ReadonlyMap<string, readonly OurPerson[]>;
}

export function indexPeople(people: readonly OurPerson[]): PeopleIndex {
  return {
    byIdentifier: grouped(people, ({ sourcedId, number }) => [
      idKey(sourcedId),
      ...(number === null ? [] : [idKey(number)]),
    ]),
    byEmail: grouped(people, ({ email }) => [idKey(email)]),
    byName: grouped(people, (person) => [nameKey(person)]),
  };
}

function grouped(
  people: readonly OurPerson[],
  keysOf: (person: OurPerson) => readonly string[],
): Map<string, OurPerson[]> {
  const groups = new Map<string, OurPerson[]>();
  for (const person of people)
    for (const key of new Set(keysOf(person))) {
      const same = groups.get(key);
      if (same) same.push(person);
      else groups.set(key, [person]);
    }
  return groups;
}

/** Who each of them is, in their order; whom two of them would be is said of neither. */
export function matchPeople(theirs: readonly TheirPerson[], index: PeopleIndex): PersonMatch[] {
  const matches = theirs.map((person) => matchPerson(person, index));
  const claims = new Map<number, number>();
  for (const match of matches)
    if (match.state === 'joined') claims.set(match.personId, (claims.get(match.personId) ?? 0) + 1);
  return matches.map((match) =>
    match.state === 'joined' && claims.get(match.personId)! > 1
      ? { state: 'conflicting', personIds: [match.personId], by: 'twoAccounts' }
      : match,
  );
}

/** By number, else by e-mail address, else by name and date of birth. */
export function matchPerson(theirs: TheirPerson, index: PeopleIndex): PersonMatch {
  const numbered = (theirs.identifier ? index.byIdentifier.get(idKey(theirs.identifier)) : undefined) ?? [];
  if (numbered.length > 1) return { state: 'conflicting', personIds: numbered.map(({ id }) => id), by: 'twoIds' };
  const [byNumber] = numbered;
  const byEmail = (theirs.email ? index.byEmail.get(idKey(theirs.email)) : undefined) ?? [];
  const ids = byEmail.map(({ id }) => id);
  if (byNumber && ids.length > 0 && !ids.includes(byNumber.id))
    return { state: 'conflicting', personIds: [byNumber.id, ...ids], by: 'twoIds' };
  if (byNumber) return { state: 'joined', personId: byNumber.id, by: 'identifier' };
  if (ids.length > 1) return { state: 'conflicting', personIds: ids, by: 'sameAddress' };
  if (ids.length === 1) return { state: 'joined', personId: ids[0]!, by: 'email' };
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
