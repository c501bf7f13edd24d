/** A student as a comment may name them. */
export interface NamedStudent {
  /** The legal given names, and the one that they go by. */
  readonly givenNames: readonly string[];
}

const letters = /[\p{L}\p{M}]+(?:['’-][\p{L}\p{M}]+)*/gu;
/** Shorter names are words too often. */
const shortestName = 3;

/**
 * Given names of other students that a comment holds, as they are written there: likely the comment of somebody else. Names
 * are whole words that begin with a capital; one that is also the student's own is nobody else's. Family names are not looked
 * at, as brothers and sisters share them.
 */
export function otherNamesIn(comment: string, own: NamedStudent, others: readonly NamedStudent[]): string[] {
  const ownNames = new Set(givenNamesOf(own));
  const otherNames = new Set(others.flatMap(givenNamesOf).filter((name) => !ownNames.has(name)));
  const words = (comment.match(letters) ?? []).map((word) => word.replace(/['’]s$/u, ''));
  return [...new Set(words.filter((word) => /^\p{Lu}/u.test(word) && otherNames.has(folded(word))))];
}

function givenNamesOf({ givenNames }: NamedStudent): string[] {
  return givenNames
    .flatMap((name) => name.match(letters) ?? [])
    .filter((name) => name.length >= shortestName)
    .map(folded);
}

const folded = (name: string) => name.normalize('NFC').toLowerCase();
