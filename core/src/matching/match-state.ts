/** How far something of theirs is from being joined to something of ours; what most needs a decision first. */
const matchStates = ['conflicting', 'unmatched', 'proposed', 'joined', 'ignored'] as const;
export type MatchState = (typeof matchStates)[number];

/** What was decided about it; "open" until somebody has. */
export type MatchDecision = 'open' | 'joined' | 'ignored';

/** Where the line lies, at first, above which proposals are offered to be taken together; in percent. */
export const sureConfidence = 90;

/** Whether somebody has still to decide. */
export function isOpen(state: MatchState): boolean {
  return state !== 'joined' && state !== 'ignored';
}

/** Sorts what most needs a decision first, and the doubtful before the sure. */
export function byNeed(
  a: { readonly state: MatchState; readonly best: { readonly confidence: number } | null },
  b: typeof a,
): number {
  return (
    matchStates.indexOf(a.state) - matchStates.indexOf(b.state) || (a.best?.confidence ?? 0) - (b.best?.confidence ?? 0)
  );
}
