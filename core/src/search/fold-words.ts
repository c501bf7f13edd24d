import { plainLetters } from '#core/formats';

/**
 * The words of a text as they are compared: without case, accents and what stands between words.
 * @example foldWords("O’Neil, Zoë") // ['oneil', 'zoe']
 */
export function foldWords(text: string): string[] {
  return plainLetters(text)
    .replaceAll(/['’ʼ]/gu, '')
    .split(/[^\p{Letter}\p{Number}]+/u)
    .filter(Boolean);
}

/**
 * A code as it is compared: an address or a number with all its signs.
 * @example foldCode(' K-4711 ') // 'k-4711'
 */
export function foldCode(code: string): string {
  return code.normalize('NFKC').trim().toLowerCase();
}
