import { folded } from '../choice/has-words';

/**
 * The next row that begins with a text, from a row on and round once; the row itself counts while it still fits. −1 where none
 * does. Case and accents do not matter.
 */
export function findRow(texts: readonly string[], typed: string, from: number): number {
  const wanted = folded(typed);
  for (let step = 0; step < texts.length; step++) {
    const at = (Math.max(0, from) + step) % texts.length;
    if (folded(texts[at]!).startsWith(wanted)) return at;
  }
  return -1;
}
