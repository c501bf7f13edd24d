import { Nested } from '#contract/requests';
import type { CourseLevel } from '#core/courses';
import { roundings, type RoundingName } from '#core/numbers';
import { repeatRules, type RepeatRule } from '#core/transcripts';
import { IsIn, IsInt, IsString, Matches, Max, Min, ValidateIf } from 'class-validator';

export class SealRequest {
  @IsInt()
  periodId!: number;
}

/** One thing that must be so before a period is sealed. */
export interface ReadinessStepReply {
  readonly code: 'posted' | 'audited' | 'unchanged' | 'settled' | 'certified' | 'window';
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

/** A student of the list: what the sealed grades come to, and what is still blank in the period. */
export interface StudentRowReply extends StudentReply {
  readonly creditsAttempted: string;
  readonly creditsEarned: string;
  /** Weighted, as the district makes it; null where no sealed grade counts. */
  readonly gpa: string | null;
  readonly blanks: number;
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
  /** Lines of one attempt at a course share it. */
  readonly attempt: number;
  readonly mostCredits: string | null;
}

/** A period on a transcript: sealed, or in progress and marked as such. */
export interface TranscriptPeriodReply {
  readonly periodId: number;
  readonly name: string;
  readonly sealedAt: string | null;
  readonly entries: readonly TranscriptEntryReply[];
}

const pointsPattern = /^\d{1,2}(\.\d{1,2})?$/;
const somePoints = { message: 'grade points such as 0.5, with at most two decimals' };

/** Grade points added by the level of the course. */
export class GpaAdditionsBody implements Readonly<Record<CourseLevel, string>> {
  @Matches(pointsPattern, somePoints)
  regular!: string;

  @Matches(pointsPattern, somePoints)
  honours!: string;

  @Matches(pointsPattern, somePoints)
  college!: string;
}

/** How grade point averages are made in the whole district. */
export class GpaPolicyBody {
  @Nested(() => GpaAdditionsBody, 'points for each level of course')
  additions!: GpaAdditionsBody;

  /** The fewest grade points that an addition is given for. */
  @Matches(pointsPattern, somePoints)
  leastAddedPoints!: string;

  /** The most credits that additions are given for; null for no limit. */
  @ValidateIf((body: GpaPolicyBody) => body.mostAddedCredits !== null)
  @Matches(/^\d{1,3}(\.\d{1,4})?$/, { message: 'credits such as 4, with at most four decimals' })
  mostAddedCredits!: string | null;

  @IsIn(repeatRules, { message: `one of ${repeatRules.join(', ')}` })
  repeats!: RepeatRule;

  @IsInt()
  @Min(0)
  @Max(4)
  digits!: number;

  @IsIn(Object.keys(roundings), { message: `one of ${Object.keys(roundings).join(', ')}` })
  rounding!: RoundingName;
}

export class SaveGpaPolicyRequest extends GpaPolicyBody {
  /** What was looked at, so that nobody saves over somebody else's change. */
  @IsString()
  revision!: string;
}

export interface GpaPolicyReply {
  readonly policy: GpaPolicyBody;
  readonly revision: string;
  /** Courses of the district that are in the GPA, and those that are not. */
  readonly coursesCounted: number;
  readonly coursesNotCounted: number;
  /** Report items whose labels count, by school and name, and codes that count. */
  readonly items: readonly { readonly school: string; readonly name: string }[];
  readonly codes: readonly string[];
}

export interface TranscriptReply {
  readonly student: StudentReply & { readonly birthDate: string | null };
  readonly school: string;
  readonly periods: readonly TranscriptPeriodReply[];
  /** How the weighted GPA is made; the unweighted one is the same without additions. */
  readonly policy: GpaPolicyBody;
  readonly codes: readonly { readonly code: string; readonly meaning: string }[];
}
