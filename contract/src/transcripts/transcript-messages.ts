import type { CourseLevel } from '#core/courses';
import type { RoundingName } from '#core/numbers';
import { IsInt } from 'class-validator';

export class SealRequest {
  @IsInt()
  periodId!: number;
}

/** One thing that must be so before a period is sealed. */
export interface ReadinessStepReply {
  readonly code: 'posted' | 'audited' | 'unchanged' | 'settled' | 'window';
  readonly isDone: boolean;
  /** Whether sealing waits for it. */
  readonly isNeeded: boolean;
  readonly count: number;
}

export interface ReadinessReply {
  readonly steps: readonly ReadinessStepReply[];
  readonly isReady: boolean;
  readonly expected: number;
  readonly posted: number;
  readonly students: number;
  /** What sealing would write, or has written. */
  readonly entries: number;
  readonly audit: { readonly at: string; readonly by: string; readonly rules: number } | null;
  readonly seal: { readonly at: string; readonly by: string; readonly entries: number } | null;
}

export interface StudentReply {
  readonly id: number;
  readonly name: string;
  readonly studentNumber: string;
  readonly yearGroup: string;
}

export interface TranscriptEntryReply {
  readonly courseCode: string;
  readonly courseTitle: string;
  readonly level: CourseLevel;
  readonly percent: string | null;
  readonly mark: string;
  readonly points: string | null;
  readonly passes: boolean;
  readonly creditsTried: string;
  readonly creditsEarned: string;
  readonly countsInGpa: boolean;
}

/** A period on a transcript: sealed, or in progress and marked as such. */
export interface TranscriptPeriodReply {
  readonly periodId: number;
  readonly name: string;
  readonly sealedAt: string | null;
  readonly entries: readonly TranscriptEntryReply[];
}

export interface GpaPolicyReply {
  readonly additions: Readonly<Record<CourseLevel, string>>;
  /** The most credits that additions are given for; null for no limit. */
  readonly mostAddedCredits: string | null;
  readonly digits: number;
  readonly rounding: RoundingName;
}

export interface TranscriptReply {
  readonly student: StudentReply & { readonly birthDate: string | null };
  readonly school: string;
  readonly periods: readonly TranscriptPeriodReply[];
  /** How the weighted GPA is made; the unweighted one is the same without additions. */
  readonly policy: GpaPolicyReply;
  readonly codes: readonly { readonly code: string; readonly meaning: string }[];
}
