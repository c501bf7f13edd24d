import { foldWords, lettersApart } from '#core/search';
import type { Person } from './person-cells.js';

/** Why two records may be of one person, the strongest first. */
export const duplicateReasons = ['same-number', 'same-birth-date', 'same-address', 'same-name'] as const;
export type DuplicateReason = (typeof duplicateReasons)[number];

export interface LikelyDuplicate<Each> {
  readonly one: Each;
  readonly other: Each;
  readonly reasons: readonly DuplicateReason[];
}

/**
 * Pairs of records that may be of one person, the likeliest first: one number twice; one day of birth, or one address, under names
 * that are alike; one name where a day of birth is missing. It is a question, never a decision: twins are alike, and siblings share
 * an address. Students are compared with students, staff with staff.
 * @example likelyDuplicates([tamsinReed, tasminReed])[0].reasons // ['same-birth-date']
 */
export function likelyDuplicates<Each extends Person & { readonly id: number }>(
  people: readonly Each[],
): LikelyDuplicate<Each>[] {
  // A name is compared with many others.
  const names = new Map(people.map((person) => [person, namesOf(person)]));
  const haveLikeNames: Fits<Each> = (one, other) => areOneName(names.get(one)!, names.get(other)!);
  const found = new Map<string, { one: Each; other: Each; reasons: Set<DuplicateReason> }>();
  const compare = (keyOf: (person: Each) => string | null, reason: DuplicateReason, fits: Fits<Each>) => {
    for (const alike of groupsBy(people, keyOf))
      alike.forEach((one, at) => {
        for (const other of alike.slice(at + 1)) {
          if (!fits(one, other)) continue;
          const key = `${one.id} ${other.id}`;
          const pair = found.get(key) ?? { one, other, reasons: new Set() };
          found.set(key, { ...pair, reasons: pair.reasons.add(reason) });
        }
      });
  };
  compare(
    ({ kind, number }) => number && `${kind} ${number.trim().toLowerCase()}`,
    'same-number',
    () => true,
  );
  compare(({ kind, birthDate }) => birthDate && `${kind} ${birthDate}`, 'same-birth-date', haveLikeNames);
  compare(({ kind, email }) => email.trim() && `${kind} ${email.trim().toLowerCase()}`, 'same-address', haveLikeNames);
  compare((person) => `${person.kind} ${names.get(person)!.join(' ')}`, 'same-name', lacksBirthDate);
  return [...found.values()]
    .map(({ one, other, reasons }) => ({ one, other, reasons: duplicateReasons.filter((each) => reasons.has(each)) }))
    .toSorted((a, b) => weightOf(a.reasons) - weightOf(b.reasons) || a.one.id - b.one.id || a.other.id - b.other.id);
}

type Fits<Each> = (one: Each, other: Each) => boolean;
type Names = readonly [family: string, given: string];

/** Two of one name and two days of birth are two people. */
const lacksBirthDate: Fits<Person> = (one, other) => one.birthDate === null || other.birthDate === null;

/** Given and family name the same but for a letter or two, or the two the other way round. */
function areOneName([familyOne, givenOne]: Names, [familyOther, givenOther]: Names): boolean {
  return (
    (areAlike(familyOne, familyOther) && areAlike(givenOne, givenOther)) ||
    (givenOne === familyOther && familyOne === givenOther)
  );
}

/**
 * A short name for a long one, "Tam" and "Tamsin", is alike too. Names that begin otherwise are seldom one name misspelled, and
 * most are told apart by that already.
 */
function areAlike(one: string, other: string): boolean {
  if (one === other) return true;
  if (one[0] !== other[0] && (one[0] !== other[1] || one[1] !== other[0])) return false;
  const [short, long] = one.length <= other.length ? [one, other] : [other, one];
  if (short.length >= 3 && long.startsWith(short)) return true;
  const most = short.length >= 8 ? 2 : short.length >= 4 ? 1 : 0;
  return lettersApart(one, other, most) !== undefined;
}

const folded = (name: string) => foldWords(name).join(' ');
const namesOf = ({ givenName, familyName }: Person): Names => [folded(familyName), folded(givenName)];

/** Lower for what is likelier. */
function weightOf(reasons: readonly DuplicateReason[]): number {
  return duplicateReasons.indexOf(reasons[0]!) * 10 - reasons.length;
}

/** Those of one key together, where there are at least two; who has no key is in none. */
function groupsBy<Each>(all: readonly Each[], keyOf: (each: Each) => string | null): Each[][] {
  const groups = new Map<string, Each[]>();
  for (const each of all) {
    const key = keyOf(each);
    if (!key) continue;
    const group = groups.get(key);
    if (group) group.push(each);
    else groups.set(key, [each]);
  }
  return [...groups.values()].filter((group) => group.length > 1);
}
