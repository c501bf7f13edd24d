import type { Mark } from '#core/posting';
import type { GradeFact, Snapshot } from './snapshot.js';

/** Blocks keeps the period from being sealed; warns and informs do not. */
export type Severity = 'blocks' | 'warns' | 'informs';

export interface RuleFinding {
  readonly enrollmentId: number;
  readonly itemId: number;
  /** Which of the rule's messages. */
  readonly message: string;
  /** What the message's {words} stand for. */
  readonly data: Readonly<Record<string, string>>;
}

export interface AuditRule {
  /** Permanent, the name of its file, never reused. */
  readonly id: string;
  /** Raised when what the rule finds changes, so that a certificate can say which was used. */
  readonly version: number;
  readonly family: 'completeness' | 'agreement' | 'dates' | 'eligibility' | 'comments' | 'transcript' | 'pattern';
  readonly severity: Severity;
  readonly summary: string;
  /** Why it matters, in one sentence. */
  readonly why: string;
  readonly messages: Readonly<Record<string, string>>;
  check(snapshot: Snapshot): Iterable<RuleFinding>;
  /** What can be set right without asking anybody; none where only a person knows what is right. */
  readonly fix?: RuleFix;
}

export interface RuleFix {
  /** What it does, as a button says it: "Set the label by the percentage". */
  readonly says: string;
  /** The mark as it would be; null where this grade gives nothing to go by. */
  mend(grade: GradeFact, period: Omit<Snapshot, 'grades'>): Mark | null;
}

/** The finding of a rule about one grade. */
export function findingOn(grade: GradeFact, message: string, data: Record<string, string>): RuleFinding {
  return { enrollmentId: grade.enrollmentId, itemId: grade.item.id, message, data };
}
