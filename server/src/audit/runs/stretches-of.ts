/** Sections of which something is read at once. */
const sectionsAtOnce = 30;

/** The ids of sections, so many at a time that others are answered between two reads. */
export function stretchesOf(sections: readonly { readonly id: number }[]): number[][] {
  const count = Math.ceil(sections.length / sectionsAtOnce);
  return Array.from({ length: count }, (_, at) =>
    sections.slice(at * sectionsAtOnce, (at + 1) * sectionsAtOnce).map(({ id }) => id),
  );
}
