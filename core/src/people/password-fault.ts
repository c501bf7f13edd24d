import { commonPasswordWords } from './common-passwords.js';

export type PasswordFault = 'password-short' | 'password-long' | 'password-common';

/**
 * Signs. The least is that of NIST SP 800-63B-4 for a password that is the only proof, from memory; what must be left
 * without common words and own names is ours.
 */
export const passwordLength = { fewest: 15, most: 200, fewestOwn: 8 };

/** As different as the signs that are left must be. */
const fewestDifferent = 5;

/**
 * A password as it is hashed: keyboards write one letter in several ways, such as é as one sign or as two (NFKC, as NIST SP
 * 800-63B asks for, from memory).
 */
export function normalPassword(password: string): string {
  return password.normalize('NFKC');
}

/**
 * What keeps a text from being a password, undefined where nothing does. No kind of sign is asked for; but without the words
 * of the commonest passwords and what everybody knows of a person, enough must be left.
 * @param known what everybody knows: names, address, school, district
 * @example passwordFault('three boats and a lamp', []) // undefined
 * @example passwordFault('password12345678', []) // 'password-common'
 */
export function passwordFault(password: string, known: readonly string[]): PasswordFault | undefined {
  const signs = [...normalPassword(password)];
  if (signs.length < passwordLength.fewest) return 'password-short';
  if (signs.length > passwordLength.most) return 'password-long';
  const knownWords = known.flatMap((text) => text.toLowerCase().split(/[\s@.,_-]+/)).filter((word) => word.length > 2);
  const words = [...new Set([...commonPasswordWords, ...knownWords, 'wombat'])].toSorted((a, b) => b.length - a.length);
  const left = [...words.reduce((text, word) => text.replaceAll(word, ''), signs.join('').toLowerCase())];
  return left.length < passwordLength.fewestOwn || new Set(left).size < fewestDifferent ? 'password-common' : undefined;
}
