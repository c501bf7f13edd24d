/**
 * The first characters of a text that came from elsewhere, as a database can keep them: without NUL, and without halves of
 * characters, as one at the end would be that is cut in two.
 * @param most UTF-16 units that are taken
 * @example wholeText('Ada 🌊', 5) // 'Ada ', as the wave is two units long
 */
export function wholeText(text: string, most: number): string {
  return text.slice(0, most).replaceAll(/[\0\p{Surrogate}]/gu, '');
}
