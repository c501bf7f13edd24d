import type { MarkBody } from '#contract/posting';
import type { Severity } from '#core/audit';
import { IsInt } from 'class-validator';

export { findingSentence } from './finding-sentence.js';

export class StartAuditRequest {
  @IsInt()
  periodId!: number;
}

export interface AuditRuleReply {
  readonly id: string;
  readonly version: number;
  readonly family: string;
  readonly severity: Severity;
  readonly summary: string;
  readonly why: string;
}

export interface FindingReply {
  readonly key: string;
  readonly ruleId: string;
  /** What was found, in a sentence. */
  readonly sentence: string;
  readonly enrollmentId: number;
  readonly studentId: number;
  readonly student: string;
  readonly sectionId: number;
  readonly section: string;
  readonly teacher: string;
  readonly itemId: number;
  readonly itemName: string;
  /** As it is posted now, which may no longer be what the run saw. */
  readonly mark: MarkBody;
  readonly computed: string | null;
  readonly postedBy: string | null;
  readonly postedAt: string | null;
  readonly isNew: boolean;
}

export interface AuditRunReply {
  readonly id: number;
  readonly startedBy: string;
  readonly startedAt: string;
  readonly gradesChecked: number;
  readonly milliseconds: number;
  readonly findings: readonly FindingReply[];
  /** Compared with the run before; null for the first run. */
  readonly sinceLastRun: {
    readonly added: number;
    readonly still: number;
    readonly gone: number;
    readonly at: string;
  } | null;
  /** Grades saved after the run began. */
  readonly changedSince: number;
}

export interface AuditReply {
  readonly rules: readonly AuditRuleReply[];
  /** Null when the period was never audited. */
  readonly run: AuditRunReply | null;
}
