import { Nested, NestedList } from '#contract/requests';
import { flagEffects, methods, type FlagEffect, type Method, type ScoreFlag } from '#core/calculation';
import type { BandBody } from '#contract/scales';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  ValidateIf,
} from 'class-validator';

const percentText = /^\d{1,3}(\.\d{1,2})?$/;

export class CategoryShareBody {
  @IsInt()
  categoryId!: number;

  @Matches(percentText, { message: 'a weight from 0 to 100 with at most two decimals, such as 12.5' })
  weight!: string;

  @IsInt()
  @Min(0, { message: 'how many scores to drop, 0 or more' })
  @Max(50, { message: 'at most 50 scores dropped' })
  dropLowest!: number;

  @ValidateIf((share: CategoryShareBody) => share.cap !== null)
  @Matches(percentText, { message: 'a percentage such as 100, or empty for no limit' })
  cap!: string | null;
}

export class LevelRuleBody {
  @Matches(percentText, { message: 'the highest level, such as 4' })
  most!: string;

  @Matches(percentText, { message: 'the level that meets, such as 3' })
  meets!: string;

  @Matches(percentText, { message: 'the level that exceeds, such as 4' })
  exceeds!: string;

  @IsInt()
  @Min(1, { message: 'at least one score' })
  @Max(50, { message: 'at most 50 scores' })
  evidence!: number;
}

class FlagEffectsBody implements Record<ScoreFlag, FlagEffect> {
  @IsIn(flagEffects)
  missing!: FlagEffect;

  @IsIn(flagEffects)
  late!: FlagEffect;

  @IsIn(flagEffects)
  incomplete!: FlagEffect;

  @IsIn(flagEffects)
  exempt!: FlagEffect;

  @IsIn(flagEffects)
  absent!: FlagEffect;

  @IsIn(flagEffects)
  collected!: FlagEffect;
}

/** How grade books are calculated, as it crosses the wire and is kept; numbers are decimal text. */
export class PolicyBody {
  @IsIn(methods)
  method!: Method;

  @NestedList(() => CategoryShareBody, 40, 'at most 40 categories')
  categories!: CategoryShareBody[];

  @Nested(() => FlagEffectsBody)
  flags!: FlagEffectsBody;

  @ValidateIf((policy: PolicyBody) => policy.cap !== null)
  @Matches(percentText, { message: 'a percentage such as 100, or empty for no limit' })
  cap!: string | null;

  @Matches(percentText, { message: 'a percentage above 0, at most 100, such as 75' })
  newestShare!: string;

  @ValidateIf((policy: PolicyBody) => policy.levels !== null)
  @Nested(() => LevelRuleBody)
  levels!: LevelRuleBody | null;
}

/** Where a policy holds: the school, one of its departments or one section, in every period or in one. */
export class PolicyPlaceBody {
  @ValidateIf((place: PolicyPlaceBody) => place.department !== null)
  @IsString()
  @Length(1, 80)
  department!: string | null;

  @ValidateIf((place: PolicyPlaceBody) => place.sectionId !== null)
  @IsInt()
  sectionId!: number | null;

  @ValidateIf((place: PolicyPlaceBody) => place.periodId !== null)
  @IsInt()
  periodId!: number | null;
}

export class PreviewPolicyRequest extends PolicyPlaceBody {
  /** Null: the place would have no policy of its own and inherit. */
  @ValidateIf((request: PreviewPolicyRequest) => request.policy !== null)
  @Nested(() => PolicyBody)
  policy!: PolicyBody | null;

  /** The period whose grade books are looked at. */
  @IsInt()
  inPeriodId!: number;
}

export class SavePolicyRequest extends PolicyPlaceBody {
  @Nested(() => PolicyBody)
  policy!: PolicyBody;

  /** Of the policy that the change began from; empty for a place without one of its own. */
  @IsString()
  revision!: string;
}

/** Takes a policy away, so that the place inherits again. */
export class RemovePolicyRequest extends PolicyPlaceBody {
  @IsString()
  revision!: string;
}

export class CopyPolicyRequest {
  /** The sections that get the policy of this one. */
  @IsArray()
  @ArrayMaxSize(500)
  @IsInt({ each: true })
  toIds!: number[];

  @ValidateIf((request: CopyPolicyRequest) => request.periodId !== null)
  @IsInt()
  periodId!: number | null;
}

export class CategoryBody {
  /** Null for a new one. */
  @ValidateIf((category: CategoryBody) => category.id !== null)
  @IsInt()
  id!: number | null;

  @IsString()
  @Length(1, 40, { message: 'a name of 1 to 40 characters' })
  name!: string;

  @IsInt()
  @Min(0)
  @Max(7)
  tint!: number;

  @IsBoolean()
  isActive!: boolean;
}

/** All categories of a school, or all of a section's own, in their order. */
export class SaveCategoriesRequest {
  @IsString()
  revision!: string;

  @NestedList(() => CategoryBody, 40, 'at most 40 categories')
  categories!: CategoryBody[];
}

export interface CategoryReply {
  readonly id: number;
  readonly name: string;
  readonly tint: number;
  readonly isActive: boolean;
  /** Null for a category of the whole school. */
  readonly sectionId: number | null;
  readonly assignments: number;
}

export interface PolicyReply {
  readonly id: number;
  readonly revision: string;
  readonly department: string | null;
  readonly sectionId: number | null;
  /** Title and number of the section, where it is of one. */
  readonly section: string | null;
  readonly periodId: number | null;
  readonly period: string | null;
  readonly policy: PolicyBody;
}

/** A section with a grade book in the period, and the policy that holds for it. */
export interface BookSummaryReply {
  readonly sectionId: number;
  readonly section: string;
  readonly courseId: number;
  readonly course: string;
  readonly department: string;
  readonly teacher: string;
  readonly policyId: number | null;
  /** "the school", "Sea and Shore" or "this section"; with the period where the policy names one. */
  readonly from: string;
  readonly assignments: number;
  readonly scores: number;
  /** Of the section's own list of categories. */
  readonly revision: string;
}

export interface PolicyFaultReply {
  readonly code: string;
  readonly severity: 'blocks' | 'warns';
  readonly policyId: number | null;
  readonly sectionId: number | null;
  readonly says: string;
}

export interface CalculationReply {
  readonly categories: readonly CategoryReply[];
  /** Of the school's list of categories. */
  readonly revision: string;
  readonly departments: readonly string[];
  readonly policies: readonly PolicyReply[];
  readonly books: readonly BookSummaryReply[];
  readonly faults: readonly PolicyFaultReply[];
  /** Grade books still to be calculated again, and posted grades that differ from what is calculated now. */
  readonly stale: number;
  readonly differing: number;
}

/** What a policy would do to the grades that are calculated now. Posted grades stay as they are. */
export interface PolicyEffectReply extends ValueEffectReply {
  /** Sections for which it would hold and that have scores. */
  readonly sections: number;
}

/** What a change of the set-up would do to computed values. */
export interface ValueEffectReply {
  readonly grades: number;
  /** Values that would change, or their labels; of those, labels. */
  readonly changed: number;
  readonly moved: number;
  readonly rise: number;
  readonly fall: number;
  readonly passAnew: number;
  readonly failAnew: number;
  /** How many grades would go from one label to another; null for no label. */
  readonly moves: readonly { readonly from: string | null; readonly to: string | null; readonly grades: number }[];
  /** The bands of the scales that the sections use, each label once. */
  readonly bands: readonly BandBody[];
  readonly students: readonly {
    readonly studentId: number;
    readonly student: string;
    readonly studentNumber: string;
    readonly section: string;
    /** The report item that takes its value from the book. */
    readonly item: string;
    readonly before: string | null;
    readonly after: string | null;
    readonly from: string | null;
    readonly to: string | null;
  }[];
  readonly milliseconds: number;
}

/** A posted grade that differs from what its grade book comes to now. */
export interface DifferingReply {
  readonly sectionId: number;
  readonly section: string;
  readonly itemId: number;
  readonly enrollmentId: number;
  readonly student: string;
  readonly posted: string;
  /** Rounded as the item says. */
  readonly calculated: string;
}

/** How far the calculating of stale grade books is. */
export interface RecalculationReply {
  readonly remaining: number;
  /** Since this round began; 0 when nothing runs. */
  readonly total: number;
  readonly isRunning: boolean;
  /** Books that could not be calculated, and why. */
  readonly failed: readonly { readonly sectionId: number; readonly section: string; readonly problem: string }[];
}
