import { dayOrThrow } from '#core/calendar';
import { readCopyLines } from '#core/formats';
import { likelyDuplicates, type DuplicateReason } from '#core/people';

/** Two records that may be of one person, by their numbers. */
export interface FoundPair {
  readonly one: number;
  readonly other: number;
  readonly reasons: readonly DuplicateReason[];
}

/** Runs in a thread: comparing the names of fifty thousand people takes longer than a request may wait. */
export default function findDuplicates({ text }: { readonly text: Uint8Array }): FoundPair[] {
  const people = readCopyLines(new TextDecoder().decode(text)).map(
    ([id, kind, number, givenName, familyName, email, birthDate]) => ({
      id: Number(id),
      kind: kind === 'student' ? ('student' as const) : ('staff' as const),
      number: number || null,
      givenName: givenName ?? '',
      familyName: familyName ?? '',
      email: email ?? '',
      birthDate: birthDate == null ? null : dayOrThrow(birthDate),
      preferredName: null,
      yearGroup: null,
      enteredOn: null,
      leftOn: null,
      pronoun: null,
    }),
  );
  return likelyDuplicates(people).map(({ one, other, reasons }) => ({ one: one.id, other: other.id, reasons }));
}
