/**
 * Whether every word that is searched begins a word of a text. Case and accents do not matter.
 *
 * @example hasWords('Making, year 1 · section 2', 'sec mak') // true
 */
export function hasWords(text: string, searched: string): boolean {
  const words = wordsOf(text);
  return wordsOf(searched).every((wanted) => words.some((word) => word.startsWith(wanted)));
}

function wordsOf(text: string): string[] {
  return folded(text)
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '');
}

/** A text as it is compared. */
export function folded(text: string): string {
  return text
    .normalize('NFD')
    .replaceAll(/\p{Diacritic}/gu, '')
    .toLowerCase();
}
