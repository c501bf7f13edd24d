/** How far something of theirs is from being joined to something of ours. */
export const matchStates = ['joined', 'proposed', 'conflicting', 'unmatched', 'ignored'] as const;
export type MatchState = (typeof matchStates)[number];

/** What was decided about it; "open" until somebody has. */
export type MatchDecision = 'open' | 'joined' | 'ignored';

/** Where the line lies, at first, above which proposals are offered to be taken together; in percent. */
export const sureConfidence = 90;
