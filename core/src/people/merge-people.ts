import type { Person } from './person-cells.js';

/** Facts that a kept record takes from the one that goes, where it lacks them. */
const fillable = [
  'number',
  'preferredName',
  'email',
  'birthDate',
  'yearGroup',
  'enteredOn',
  'leftOn',
  'pronoun',
] as const satisfies readonly (keyof Person)[];
export type FilledField = (typeof fillable)[number];

export interface MergedFacts {
  readonly person: Person;
  /** Which facts came from the record that goes. */
  readonly filled: readonly FilledField[];
}

/**
 * One record of two: what the kept one says stays; what it lacks it takes from the other.
 * @example mergePeople({ ...kept, email: '' }, { ...gone, email: 'ina@voe.example' }).filled // ['email']
 */
export function mergePeople(kept: Person, gone: Person): MergedFacts {
  const filled = fillable.filter((field) => !kept[field] && gone[field]);
  return { person: Object.assign({ ...kept }, ...filled.map((field) => ({ [field]: gone[field] }))) as Person, filled };
}

/** Why two records cannot be made one. */
export type MergeObstacle =
  | { readonly code: 'kinds-differ' }
  | { readonly code: 'both-have-accounts' }
  | { readonly code: 'work-in-both'; readonly section: string };

/** A section in which both records have a seat, and in which of these anything hangs on it. */
export interface SharedSection {
  readonly section: string;
  readonly keptSeat: { readonly id: number; readonly isUsed: boolean };
  readonly goneSeat: { readonly id: number; readonly isUsed: boolean };
}

export interface MergedSeats {
  /** Seats without any work, in sections where the other record has one too. */
  readonly dropped: readonly number[];
  readonly obstacles: readonly MergeObstacle[];
}

/** Of two seats in one section one goes, which has nothing on it; where both have, the records stay two. */
export function mergeSeats(shared: readonly SharedSection[]): MergedSeats {
  const stuck = shared.filter(({ keptSeat, goneSeat }) => keptSeat.isUsed && goneSeat.isUsed);
  const free = shared.filter((each) => !stuck.includes(each));
  return {
    dropped: free.map(({ keptSeat, goneSeat }) => (goneSeat.isUsed ? keptSeat.id : goneSeat.id)),
    obstacles: stuck.map(({ section }) => ({ code: 'work-in-both', section })),
  };
}
