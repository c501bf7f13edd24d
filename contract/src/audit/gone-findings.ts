/** Why a finding of the run before is no longer one, as far as it can be told. */
export type WhyGone = 'saved' | 'rule-off' | 'elsewhere';

/** A finding that the last run no longer has. */
export interface GoneFindingReply {
  readonly key: string;
  readonly summary: string;
  /** What was found, in a sentence. */
  readonly sentence: string;
  /** What it was about, in a word or two. */
  readonly subject: string;
  readonly section: string | null;
  readonly why: WhyGone;
  /** Who saved the grade since the run before, and when; null where nobody did. */
  readonly by: string | null;
  readonly at: string | null;
}
