import type { CourseReply } from '#contract/courses';
import type { PeriodKind } from '#core/calendar';
import { courseLengths, courseLevels, type CourseLength, type CourseLevel } from '#core/courses';
import type { RoundingName } from '#core/numbers';
import { IsIn, IsInt, IsString, MaxLength, ValidateIf } from 'class-validator';

/** The choices of a rule; null means any. */
export class RuleChoicesBody {
  @ValidateIf((choices: RuleChoicesBody) => choices.department !== null)
  @IsString()
  @MaxLength(80)
  department!: string | null;

  @ValidateIf((choices: RuleChoicesBody) => choices.level !== null)
  @IsIn(courseLevels, { message: `one of ${courseLevels.join(', ')}` })
  level!: CourseLevel | null;

  @ValidateIf((choices: RuleChoicesBody) => choices.length !== null)
  @IsIn(courseLengths, { message: `one of ${courseLengths.join(', ')}` })
  length!: CourseLength | null;
}

export class SaveRuleRequest extends RuleChoicesBody {
  @IsInt()
  version!: number;
}

export interface ReportItemReply {
  readonly id: number;
  readonly name: string;
  readonly heading: string;
  readonly scaleName: string;
  readonly digits: number;
  readonly rounding: RoundingName;
  readonly failingNeedsLastDate: boolean;
  readonly onTranscript: boolean;
}

export interface RuleReply {
  readonly id: number;
  readonly itemId: number;
  readonly periodKind: PeriodKind;
  readonly department: string | null;
  readonly level: CourseLevel | null;
  readonly length: CourseLength | null;
  readonly version: number;
}

export interface ReportItemsReply {
  readonly items: readonly ReportItemReply[];
  readonly rules: readonly RuleReply[];
  readonly departments: readonly string[];
  readonly courses: readonly (CourseReply & {
    /** For each item that the course reports, the rule that put it there. */
    readonly covers: readonly { readonly itemId: number; readonly ruleId: number }[];
  })[];
}

export interface RulePreviewReply {
  readonly added: readonly CourseReply[];
  readonly removed: readonly (CourseReply & { readonly postedGrades: number })[];
}
