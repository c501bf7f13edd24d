import { foldName, singular, unspaced, writtenOut } from './name-forms.js';
import { nameSimilarity } from './name-similarity.js';

/** Why two names may mean the same. */
export type NameReason =
  | { readonly kind: 'same' }
  | { readonly kind: 'case' }
  | { readonly kind: 'plural' }
  | { readonly kind: 'abbreviation' }
  | { readonly kind: 'within' }
  | { readonly kind: 'spelling'; readonly similarity: number };

export interface NameLikeness {
  /** 0 to 100. */
  readonly confidence: number;
  readonly reason: NameReason;
}

/** What each reason is worth; spelling is worth less the less alike the names are. */
const worth = { same: 100, case: 98, plural: 96, abbreviation: 92, within: 72 } as const;

/** Below this, likeness of spelling is chance: "test" and "text" are 0.87 alike, and so are many short words. */
const leastSimilarity = 0.9;
const mostBySpelling = 90;

/**
 * How sure it is that two names mean the same, by the strongest reason there is; undefined where there is none.
 * @example compareNames('HW', 'Homework') // { confidence: 92, reason: { kind: 'abbreviation' } }
 */
export function compareNames(theirs: string, ours: string): NameLikeness | undefined {
  if (theirs.trim() === ours.trim()) return { confidence: worth.same, reason: { kind: 'same' } };
  const [a, b] = [foldName(theirs), foldName(ours)];
  if (a === '' || b === '') return undefined;
  if (unspaced(a) === unspaced(b)) return { confidence: worth.case, reason: { kind: 'case' } };
  if (unspaced(singular(a)) === unspaced(singular(b))) return { confidence: worth.plural, reason: { kind: 'plural' } };
  const [longA, longB] = [writtenOut(a), writtenOut(b)];
  if (unspaced(longA) === unspaced(longB)) return { confidence: worth.abbreviation, reason: { kind: 'abbreviation' } };
  const similarity = nameSimilarity(longA, longB);
  if (similarity >= leastSimilarity && longA.length > 3)
    return { confidence: Math.floor(similarity * mostBySpelling), reason: { kind: 'spelling', similarity } };
  if (holdsWords(longA, longB) || holdsWords(longB, longA))
    return { confidence: worth.within, reason: { kind: 'within' } };
  return undefined;
}

/** Whether all words of one name are words of the other. */
function holdsWords(whole: string, part: string): boolean {
  const words = new Set(whole.split(' '));
  return part.split(' ').every((word) => words.has(word));
}
