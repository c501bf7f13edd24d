/** Full and half hours of the night and its edges, as what goes on by night may be set to. */
const usual = ['20:00', '22:00', '00:30', '01:30', '02:30', '03:30', '04:30', '05:30'];

/** With the one that is chosen, where that is another. */
export function nightTimes(chosen: string | null): string[] {
  return chosen === null || usual.includes(chosen) ? usual : [...usual, chosen].toSorted();
}
