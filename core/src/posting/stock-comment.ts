import type { Pronoun } from '#core/people';

/** Of whom a comment speaks: by the name that they go by. */
export interface SpokenOf {
  readonly name: string;
  readonly pronoun: Pronoun;
}

/** What stands in braces in a stock comment, written as for "they", and what each pronoun makes of it. */
export const commentWords = {
  name: null,
  they: { she: 'she', he: 'he', they: 'they' },
  them: { she: 'her', he: 'him', they: 'them' },
  their: { she: 'her', he: 'his', they: 'their' },
  theirs: { she: 'hers', he: 'his', they: 'theirs' },
  themselves: { she: 'herself', he: 'himself', they: 'themselves' },
  are: { she: 'is', he: 'is', they: 'are' },
  have: { she: 'has', he: 'has', they: 'have' },
  do: { she: 'does', he: 'does', they: 'do' },
  were: { she: 'was', he: 'was', they: 'were' },
} as const satisfies Record<string, Readonly<Record<Pronoun, string>> | null>;

const slot = /\{([^{}]*)\}/g;

/**
 * A stock comment about one student. A word that begins with a capital stays so.
 * @example fillStockComment('{Name} tried hard; {they} {have} earned it.', { name: 'Yara', pronoun: 'she' }) // 'Yara tried hard; she has earned it.'
 */
export function fillStockComment(text: string, { name, pronoun }: SpokenOf): string {
  return text.replace(slot, (whole, word: string) => {
    const key = word.toLowerCase();
    if (key === 'name') return name;
    if (!isCommentWord(key)) return whole;
    const filled = commentWords[key]![pronoun];
    return /^\p{Lu}/u.test(word) ? filled[0]!.toUpperCase() + filled.slice(1) : filled;
  });
}

/** Words in braces that nothing is known to fill in for, each once. */
export function unknownCommentWords(text: string): string[] {
  const words = Array.from(text.matchAll(slot), ([, word]) => word!);
  return [...new Set(words.filter((word) => !isCommentWord(word.toLowerCase())))];
}

function isCommentWord(word: string): word is Exclude<keyof typeof commentWords, 'name'> | 'name' {
  return Object.hasOwn(commentWords, word);
}
