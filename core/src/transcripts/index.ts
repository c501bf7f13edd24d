export { creditShares } from './credit-shares.js';
export { entryOfMark } from './entry-of-mark.js';
export { gpa, plainGpaPolicy, type Gpa, type GpaPolicy } from './gpa.js';
export { countRepeats, repeatRules, type RepeatRule } from './repeats.js';
export type { TranscriptEntry } from './transcript-entry.js';
export { periodShare } from './period-share.js';
export { sumCredits } from './sum-credits.js';
