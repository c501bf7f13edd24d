import { NestedList } from '#contract/requests';
import { periodKinds, type PeriodKind } from '#core/calendar';
import { courseLengths, courseLevels, type CourseLength, type CourseLevel } from '#core/courses';
import type { RoundingName } from '#core/numbers';
import {
  commentRules,
  familyTimes,
  familyViews,
  itemKinds,
  itemSources,
  partUnits,
  type CommentRule,
  type FamilyTime,
  type FamilyView,
  type ItemKind,
  type ItemSource,
  type PartUnit,
} from '#core/report-items';
import type { ValueEffectReply } from '#contract/calculation';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
} from 'class-validator';

const oneOf = (values: readonly string[]) => ({ message: `one of ${values.join(', ')}` });

export class PartBody {
  @IsInt()
  itemId!: number;

  @IsInt()
  @Min(1, { message: 'which of the periods, from 1' })
  @Max(12, { message: 'at most 12' })
  ordinal!: number;

  @Matches(/^-?\d{1,3}(\.\d{1,2})?$/, { message: 'a weight above 0 with at most two decimals, such as 40' })
  weight!: string;
}

/** A report item with every property, as it crosses the wire. */
export class ItemBody {
  @IsString()
  @Length(1, 60, { message: 'a name of 1 to 60 characters, such as Quarter grade' })
  name!: string;

  @IsString()
  @Length(1, 14, { message: 'a short heading of 1 to 14 characters' })
  heading!: string;

  @IsIn(itemKinds, oneOf(itemKinds))
  kind!: ItemKind;

  @IsIn(periodKinds, oneOf(periodKinds))
  periodKind!: PeriodKind;

  /** Which of the year's periods of that kind, from 1; null for each. */
  @ValidateIf((item: ItemBody) => item.ordinals !== null)
  @IsArray()
  @ArrayMinSize(1, { message: 'at least one period, or null for each' })
  @ArrayMaxSize(12)
  @IsInt({ each: true })
  @Min(1, { each: true })
  ordinals!: number[] | null;

  @ValidateIf((item: ItemBody) => item.scaleId !== null)
  @IsInt()
  scaleId!: number | null;

  @IsIn(itemSources, oneOf(itemSources))
  source!: ItemSource;

  /** The category or standard of the grade book whose value it takes; null for the book as a whole. */
  @ValidateIf((item: ItemBody) => item.categoryId !== null)
  @IsInt({ message: 'a category of the school, or null' })
  categoryId!: number | null;

  @IsIn(partUnits, oneOf(partUnits))
  countBy!: PartUnit;

  @NestedList(() => PartBody, 20, 'at most 20 parts')
  parts!: PartBody[];

  @IsInt({ message: '0, 1 or 2 decimals' })
  @Min(0, { message: '0, 1 or 2 decimals' })
  @Max(2, { message: '0, 1 or 2 decimals' })
  digits!: number;

  @IsIn(['halfUp', 'halfEven', 'down'], oneOf(['halfUp', 'halfEven', 'down']))
  rounding!: RoundingName;

  /** The highest percentage that is posted. */
  @Matches(/^(1\d\d(\.\d{1,2})?|200(\.00?)?)$/, { message: 'a percentage from 100 to 200, such as 100' })
  highestPercent!: string;

  @IsIn(commentRules, oneOf(commentRules))
  commentRule!: CommentRule;

  @ValidateIf((item: ItemBody) => item.commentRule === 'requiredBelow' || item.commentBelow !== null)
  @IsString({ message: 'the label below which a comment is required' })
  @Length(1, 12, { message: 'the label below which a comment is required' })
  commentBelow!: string | null;

  @IsInt()
  @Min(1, { message: 'at least 1 character' })
  @Max(2000, { message: 'at most 2000 characters' })
  commentLength!: number;

  @IsIn(familyViews, oneOf(familyViews))
  familyView!: FamilyView;

  @IsIn(familyTimes, oneOf(familyTimes))
  familyTime!: FamilyTime;

  @IsBoolean()
  failingNeedsLastDate!: boolean;

  @IsBoolean()
  asksHours!: boolean;

  @IsBoolean()
  onTranscript!: boolean;

  @IsBoolean()
  countsInGpa!: boolean;
}

export class NewItemRequest extends ItemBody {
  /** The item whose posting windows it takes over where both are posted; null for none. */
  @ValidateIf((item: NewItemRequest) => item.windowsLike !== null)
  @IsInt()
  windowsLike!: number | null;
}

export class SaveItemRequest extends ItemBody {
  /** Of the item that the change began from. */
  @IsString()
  revision!: string;
}

/** What a changed item would do to what is computed for it. Posted grades stay as they are. */
export interface ItemEffectReply extends ValueEffectReply {
  /** The period looked at: the chosen one, or the nearest that the item is posted in. */
  readonly periodName: string;
  readonly sections: number;
  /** Posted grades that are what is computed now, and would not be then. */
  readonly postedOtherwise: number;
}

/** The choices of a rule; null means any. */
export class RuleBody {
  @IsInt()
  itemId!: number;

  @IsIn(['reports', 'omits'], oneOf(['reports', 'omits']))
  effect!: 'reports' | 'omits';

  @ValidateIf((rule: RuleBody) => rule.department !== null)
  @IsString()
  @MaxLength(80)
  department!: string | null;

  @ValidateIf((rule: RuleBody) => rule.level !== null)
  @IsIn(courseLevels, oneOf(courseLevels))
  level!: CourseLevel | null;

  @ValidateIf((rule: RuleBody) => rule.kind !== null)
  @IsString()
  @MaxLength(40)
  kind!: string | null;

  @ValidateIf((rule: RuleBody) => rule.length !== null)
  @IsIn(courseLengths, oneOf(courseLengths))
  length!: CourseLength | null;
}

export class ExceptionBody {
  @IsInt()
  itemId!: number;

  @IsInt()
  courseId!: number;

  @IsIn(['reports', 'omits'], oneOf(['reports', 'omits']))
  effect!: 'reports' | 'omits';

  @IsString()
  @MaxLength(120, { message: 'at most 120 characters' })
  reason!: string;
}

/** Rules in their order and exceptions: all that says which course reports what. */
export class ItemRulesBody {
  @NestedList(() => RuleBody, 200, 'at most 200 rules')
  rules!: RuleBody[];

  @NestedList(() => ExceptionBody, 20_000)
  exceptions!: ExceptionBody[];
}

export class SaveAssignmentRequest extends ItemRulesBody {
  /** The revision of the set-up that the change began from. */
  @IsString()
  revision!: string;
}

export class OrderItemsRequest {
  @IsArray()
  @IsInt({ each: true })
  itemIds!: number[];

  /** The items in the order in which the person saw them. */
  @IsArray()
  @IsInt({ each: true })
  seen!: number[];
}

export interface ItemReply extends ItemBody {
  readonly id: number;
  readonly revision: string;
  /** The name of its own scale; null where it uses the course's. */
  readonly scaleName: string | null;
  /** Labels of its own scale, or of the school's, from the top. */
  readonly labels: readonly string[];
  readonly descriptors: readonly string[];
  readonly postedGrades: number;
}

export interface CoverReply {
  readonly itemId: number;
  readonly reports: boolean;
  readonly kind: 'rule' | 'exception';
  /** The place of the rule or exception in its list. */
  readonly at: number;
}

export interface CoveredCourseReply {
  readonly id: number;
  readonly code: string;
  readonly title: string;
  readonly department: string;
  readonly kind: string;
  readonly level: CourseLevel;
  readonly length: CourseLength;
  readonly credits: string;
  readonly onTranscript: boolean;
  readonly scaleName: string | null;
  readonly covers: readonly CoverReply[];
}

export interface ReportItemsReply {
  readonly revision: string;
  readonly items: readonly ItemReply[];
  readonly rules: readonly RuleBody[];
  readonly exceptions: readonly ExceptionBody[];
  readonly departments: readonly string[];
  readonly kinds: readonly string[];
  readonly scales: readonly { readonly id: number; readonly name: string; readonly labels: readonly string[] }[];
  /** The school’s categories and standards that a grade-book item can take by themselves. */
  readonly categories: readonly { readonly id: number; readonly name: string }[];
  /** The school's periods that items can be posted in, by kind, as people call them. */
  readonly periods: readonly { readonly kind: PeriodKind; readonly names: readonly string[] }[];
  readonly courses: readonly CoveredCourseReply[];
}

/** What a change of rules and exceptions would do. */
export interface AssignmentPreviewReply {
  readonly courses: readonly { readonly id: number; readonly covers: readonly CoverReply[] }[];
  readonly changes: readonly {
    readonly itemId: number;
    readonly added: readonly { readonly id: number; readonly title: string }[];
    readonly removed: readonly {
      readonly id: number;
      readonly title: string;
      /** Grades that are posted and would lose their place. */
      readonly postedGrades: number;
    }[];
  }[];
}
