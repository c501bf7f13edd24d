import type { Decimal, Percent } from '#core/numbers';

/**
 * How the scores of a period become one percent. `totalPoints` puts all points in one pot. All others work within each
 * category first and weigh the categories then: `categoryPoints` by points, `categoryEqual` with the same weight for every
 * assignment, and the six of evidence by levels in the order of the due dates.
 */
export const methods = [
  'totalPoints',
  'categoryPoints',
  'categoryEqual',
  'decaying',
  'powerLaw',
  'mostRecent',
  'highest',
  'mode',
  'mean',
] as const;
export type Method = (typeof methods)[number];

/** What may be noted on a score beside its points, or in place of them. The position is the number in columns, from 1. */
export const scoreFlags = ['missing', 'late', 'incomplete', 'exempt', 'absent', 'collected'] as const;
export type ScoreFlag = (typeof scoreFlags)[number];

/**
 * What a flag does: `counts` lets the points stand, `zero` counts as no points, `leaves` takes the score out, `blocks`
 * leaves the student without a grade until it is resolved.
 */
export const flagEffects = ['counts', 'zero', 'leaves', 'blocks'] as const;
export type FlagEffect = (typeof flagEffects)[number];

/** What a category counts for in one policy. */
export interface CategoryShare {
  readonly categoryId: number;
  /** 0 or more, at most two decimals; weights are shares of the weights of the categories that have scores. */
  readonly weight: Decimal;
  /** How many scores are dropped, the best choice for the student; the last score is never dropped. */
  readonly dropLowest: number;
  /** The most the category may reach, in percent, at most two decimals; null for no limit. */
  readonly cap: Percent | null;
}

/** How levels are read, for the methods of evidence. */
export interface LevelRule {
  /** The highest level, which is also what a level is "out of"; scores out of anything else are from another scale. */
  readonly most: Decimal;
  readonly meets: Decimal;
  readonly exceeds: Decimal;
  /** How many scores a category needs before it says anything, from 1. */
  readonly evidence: number;
}

/** How a section's grade book is calculated in a period. */
export interface CalculationPolicy {
  readonly method: Method;
  readonly categories: readonly CategoryShare[];
  readonly flags: Readonly<Record<ScoreFlag, FlagEffect>>;
  /** The most the whole may reach, in percent; null for no limit. */
  readonly cap: Percent | null;
  /** For `decaying`: the percent that each newer score counts against all before it, above 0, at most 100. */
  readonly newestShare: Percent;
  /** Set exactly for the methods of evidence. */
  readonly levels: LevelRule | null;
}

/** Whether a method reads levels in order rather than adding up points. */
export function isOfEvidence(method: Method): boolean {
  return methods.indexOf(method) > methods.indexOf('categoryEqual');
}
