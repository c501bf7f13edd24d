import type { BandBody, ScaleEffectReply } from '#contract/scales';

/** What an effect moves, whether of a scale or of a policy. */
export type Moves = Pick<ScaleEffectReply, 'moves'>;

/** The labels of an effect from the top of the scale down, then those it does not know; null for none last. */
export function effectLabels({ moves }: Moves, bands: readonly BandBody[]): (string | null)[] {
  const known = bands.map(({ label }) => label);
  const found = new Set(moves.flatMap(({ from, to }) => [from, to]));
  const others = [...found].filter((label) => label !== null && !known.includes(label));
  return [...known.filter((label) => found.has(label)), ...others, ...(found.has(null) ? [null] : [])];
}

/** Grades of each label before and after. */
export function countsOf({ moves }: Moves, label: string | null): { before: number; after: number } {
  const sum = (matches: (move: Moves['moves'][number]) => boolean) =>
    moves.filter(matches).reduce((total, { grades }) => total + grades, 0);
  return { before: sum(({ from }) => from === label), after: sum(({ to }) => to === label) };
}
