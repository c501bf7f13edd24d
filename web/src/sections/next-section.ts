import type { SectionCells } from '#core/sections';

/** What a new section begins with: the course, teacher and days of the one beside it, and the next number of that course. */
export function nextOf(
  beside: SectionCells | undefined,
  sections: readonly { readonly cells: SectionCells }[],
): Partial<SectionCells> {
  if (!beside) return {};
  const numbers = [beside, ...sections.map(({ cells }) => cells)]
    .filter(({ course }) => course === beside.course)
    .map(({ number }) => Number(number) || 0);
  return { ...beside, number: String(Math.max(...numbers) + 1) };
}
