/** Sections of which something is read at once. */
const sectionsAtOnce = 16;

/** The ids of sections, so many at a time that others are answered between two reads. */
export function stretchesOf(ids: readonly number[]): number[][] {
  const count = Math.ceil(ids.length / sectionsAtOnce);
  return Array.from({ length: count }, (_, at) => ids.slice(at * sectionsAtOnce, (at + 1) * sectionsAtOnce));
}
