import type { PersonCells } from './person-cells.js';
import type { NameStyle, PeopleOrder } from './own-view.js';

/** A name as lists have it, in its parts. */
export interface NameParts {
  readonly family: string;
  readonly given: string;
  /** The given name that the person goes by; null where it is the legal one. */
  readonly preferred: string | null;
}

/**
 * A name as lists have it: family name first, the preferred name in quotation marks behind.
 * @example listedName({ family: 'Carrow', given: 'Hale', preferred: 'Hal' }) // 'Carrow, Hale “Hal”'
 */
export function listedName({ family, given, preferred }: NameParts): string {
  return `${family}, ${given}${preferred === null ? '' : ` “${preferred}”`}`;
}

/** The parts of such a name. A text that is none is all family name. */
export function partsOfName(listed: string): NameParts {
  const { family = listed, given = '', preferred = null } = parts.exec(listed)?.groups ?? {};
  return { family, given, preferred: preferred ?? null };
}

const parts = /^(?<family>[^]*?), (?<given>[^]*?)(?: “(?<preferred>[^”]*)”)?$/;

/**
 * A listed name as somebody likes to have it.
 * @example nameAs('Carrow, Hale “Hal”', { order: 'given', names: 'preferred' }) // 'Hal Carrow'
 */
export function nameAs(listed: string, how: HowNamed): string {
  const parts = partsOfName(listed);
  return parts.given === '' ? listed : nameOf(parts, how);
}

/**
 * Everything that lists may call a person, the legal name first: what a cell may name them by.
 * @example waysToCall({ family: 'Carrow', given: 'Hale', preferred: 'Hal' }).slice(0, 3) // ['Carrow, Hale', 'Hale Carrow', 'Carrow, Hale “Hal”']
 */
export function waysToCall(parts: NameParts): readonly string[] {
  const styles: readonly NameStyle[] = ['legal', 'both', 'preferred'];
  const orders: readonly PeopleOrder[] = ['family', 'given'];
  return [...new Set(styles.flatMap((names) => orders.map((order) => nameOf(parts, { order, names }))))];
}

interface HowNamed {
  readonly order: PeopleOrder;
  readonly names: NameStyle;
}

function nameOf({ family, given, preferred }: NameParts, { order, names }: HowNamed): string {
  const called =
    preferred === null || names === 'legal' ? given : names === 'preferred' ? preferred : `${given} “${preferred}”`;
  return order === 'family' ? `${family}, ${called}` : `${called} ${family}`;
}

/**
 * A person in a sentence, by their legal name.
 *
 * @example spokenName({ givenName: 'Hale', familyName: 'Carrow' }) // 'Hale Carrow'
 */
export function spokenName({ givenName, familyName }: Pick<PersonCells, 'givenName' | 'familyName'>): string {
  return `${givenName} ${familyName}`;
}
