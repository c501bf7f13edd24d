/**
 * Which of many chances are small enough, so that of those taken for more than chance no larger share than `rate` is
 * expected to be chance after all: the procedure of Benjamini and Hochberg. By the place in the list.
 * @example fewestFalseAlarms([0.001, 0.04, 0.8], 0.05) // [true, false, false]
 */
export function fewestFalseAlarms(chances: readonly number[], rate: number): boolean[] {
  const ordered = chances.toSorted((a, b) => a - b);
  const last = ordered.findLastIndex((chance, at) => chance <= ((at + 1) / chances.length) * rate);
  return chances.map((chance) => last !== -1 && chance <= ordered[last]!);
}
