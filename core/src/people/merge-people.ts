import type { Person } from './person-cells.js';

/** Facts that a kept record takes from the one that goes, where it lacks them. */
const fillable = ['number', 'email', 'birthDate', 'yearGroup'] as const satisfies readonly (keyof Person)[];
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
