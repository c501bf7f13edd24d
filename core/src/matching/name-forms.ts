import { plainLetters } from '#core/formats';
import { abbreviations } from './abbreviations.js';

/** A name without capitals, accents, punctuation and doubled space: "Home-Work " and "home work" are one. */
export function foldName(name: string): string {
  return plainLetters(name)
    .replace(/&/g, ' and ')
    .replace(/[^\p{L}\p{N}%]+/gu, ' ')
    .trim();
}

/** A folded name in the singular, word by word: "quizzes" is "quiz", "tests" is "test". English only. */
export function singular(folded: string): string {
  return folded
    .split(' ')
    .map((word) => {
      if (word.length < 4 || word.endsWith('ss')) return word;
      if (word.endsWith('zzes')) return word.slice(0, -3);
      if (word.endsWith('ies')) return `${word.slice(0, -3)}y`;
      if (/(?:s|x|z|ch|sh)es$/.test(word)) return word.slice(0, -2);
      return word.endsWith('s') ? word.slice(0, -1) : word;
    })
    .join(' ');
}

/** A folded name in the singular with its short forms written out: "hw" is "homework". */
export function writtenOut(folded: string): string {
  return folded
    .split(' ')
    .map((word) => {
      const one = singular(word);
      return abbreviations.get(word) ?? abbreviations.get(one) ?? one;
    })
    .join(' ');
}

/** Without its spaces, as some write "home work" and others "homework". */
export function unspaced(folded: string): string {
  return folded.replaceAll(' ', '');
}
