/** Sections of which something is read at once. */
const sectionsAtOnce = 12;

/**
 * The ids of sections, so many at a time that others are answered between two reads.
 * @param only those that are wanted; without them, all
 */
export function stretchesOf(sections: readonly { readonly id: number }[], only?: ReadonlySet<number>): number[][] {
  const ids = sections.map(({ id }) => id).filter((id) => !only || only.has(id));
  const count = Math.ceil(ids.length / sectionsAtOnce);
  return Array.from({ length: count }, (_, at) => ids.slice(at * sectionsAtOnce, (at + 1) * sectionsAtOnce));
}
