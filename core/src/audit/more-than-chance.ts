import { fewestFalseAlarms } from '#core/statistics';
import type { RuleFinding } from './audit-rule.js';

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

/** What a rule would find, if it is more than chance among all that it looked at. */
export interface Candidate {
  readonly finding: RuleFinding;
  readonly chance: number;
}

/** The findings that are unusual beyond chance. */
export function beyondChance(candidates: readonly Candidate[]): RuleFinding[] {
  return moreThanChance(candidates).map(({ finding }) => finding);
}

/** A chance as sentences tell it: in how many of a thousand sections. */
export const inThousand = (chance: number): string => (chance * 1000).toFixed(1);
