/**
 * A text as people compare it: small letters without accents, and each sign in its plainest form.
 * @example plainLetters('Réed ﬁne') // 'reed fine'
 */
export function plainLetters(text: string): string {
  return text
    .normalize('NFKD')
    .replaceAll(/\p{Mark}/gu, '')
    .toLowerCase();
}
