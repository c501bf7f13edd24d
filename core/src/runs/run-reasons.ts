/** What a run does with a row of its plan. Only "create" and "change" write anything. */
export const ledgerOutcomes = ['create', 'change', 'same', 'skip', 'refuse'] as const;
export type LedgerOutcome = (typeof ledgerOutcomes)[number];

/** Whether carrying a line of that outcome out writes anything. */
export function isWriting(outcome: LedgerOutcome): boolean {
  return outcome === 'create' || outcome === 'change';
}

interface Sums {
  readonly outcomes: Readonly<Record<LedgerOutcome, number>>;
  readonly leftOut: number;
  readonly heldBack: number;
}

/** Lines of a ledger that are to be written: new and changed ones but for those that somebody left out. */
export function linesToWrite({ outcomes, leftOut }: Sums): number {
  return outcomes.create + outcomes.change - leftOut;
}

/** All that is not sent: lines skipped and refused, and the scores held back with them. */
export function notSent({ outcomes, heldBack }: Sums): number {
  return outcomes.skip + outcomes.refuse + heldBack;
}

/**
 * Every reason that a row can carry, with what it leads to. "skip" leaves the row out because somebody wants it so,
 * "refuse" because it cannot be carried over as it is, "note" says something about a row that is carried over.
 */
export const runReasons = {
  'class-open': 'refuse',
  'class-ignored': 'skip',
  'other-term': 'refuse',
  'period-sealed': 'refuse',
  'weights-not-100': 'note',
  'not-marked': 'skip',
  unpublished: 'skip',
  ungraded: 'skip',
  'other-period': 'skip',
  'removed-here': 'skip',
  'gone-there': 'skip',
  'group-ignored': 'skip',
  'group-open': 'refuse',
  'no-date': 'refuse',
  'no-points': 'refuse',
  'too-many-points': 'refuse',
  'name-missing': 'refuse',
  'name-too-long': 'refuse',
  'given-to-nobody': 'refuse',
  'points-below-scores': 'refuse',
  'default-category': 'note',
  'given-to-some': 'note',
  'no-scores-yet': 'note',
  'taken-up': 'note',
  'person-open': 'refuse',
  'person-ignored': 'skip',
  'not-in-section': 'refuse',
  withdrawn: 'skip',
  'not-given': 'refuse',
  'score-above': 'refuse',
  'score-too-high': 'refuse',
  'score-negative': 'refuse',
  'score-digits': 'refuse',
  'score-unreadable': 'refuse',
  kept: 'skip',
  'total-open': 'refuse',
  'total-ignored': 'skip',
  'no-scale': 'refuse',
  'window-closed': 'refuse',
  'signed-off': 'refuse',
  'letter-open': 'refuse',
  'letter-ignored': 'skip',
  'below-scale': 'refuse',
  'percent-too-high': 'refuse',
  'not-levels': 'refuse',
} as const satisfies Record<string, 'skip' | 'refuse' | 'note'>;

export type RunReasonCode = keyof typeof runReasons;

export interface RunReason {
  readonly code: RunReasonCode;
  /** What the sentence about it names: a date, a number, a name. */
  readonly about?: string;
}

/** The reason that decides: the first that refuses, else the first that skips, else none. */
export function decidingReason(reasons: readonly RunReason[]): RunReason | undefined {
  const leadingTo = (effect: 'refuse' | 'skip') => reasons.find(({ code }) => runReasons[code] === effect);
  return leadingTo('refuse') ?? leadingTo('skip');
}

/** What becomes of a row that would otherwise be carried over as `otherwise`. */
export function outcomeOf(reasons: readonly RunReason[], otherwise: 'create' | 'change' | 'same'): LedgerOutcome {
  const deciding = decidingReason(reasons);
  return deciding ? (runReasons[deciding.code] as 'refuse' | 'skip') : otherwise;
}
