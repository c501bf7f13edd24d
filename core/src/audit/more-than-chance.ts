import { fewestFalseAlarms } from '#core/statistics';

/** Of the sheets that a pattern names, the share that is expected to be chance after all. */
const falseAlarms = 0.05;

/** Those of a period's looks that are unusual beyond chance, all judged together. */
export function moreThanChance<Look extends { readonly chance: number }>(looks: readonly Look[]): Look[] {
  const isMore = fewestFalseAlarms(
    looks.map(({ chance }) => chance),
    falseAlarms,
  );
  return looks.filter((_look, at) => isMore[at]);
}

/** A chance as sentences tell it: in how many of a thousand sections. */
export const inThousand = (chance: number): string => (chance * 1000).toFixed(1);
