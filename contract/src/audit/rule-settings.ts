import {
  ruleEffects,
  type RuleEffect,
  type RuleExceptions,
  type RuleThreshold,
  type Scope,
  type Severity,
} from '#core/audit';
import { IsTimeOfDay, Nested, NestedList } from '#contract/requests';
import { ArrayMaxSize, IsIn, IsInt, IsNumber, IsString, MaxLength, ValidateIf } from 'class-validator';

const mostRules = 500;
const mostExceptions = 500;

/** What a rule leaves alone. */
export class RuleExceptionsBody {
  @IsString({ each: true })
  @ArrayMaxSize(mostExceptions, { message: `at most ${mostExceptions} departments` })
  departments!: string[];

  /** Their ids. */
  @IsInt({ each: true })
  @ArrayMaxSize(mostExceptions, { message: `at most ${mostExceptions} courses` })
  courses!: number[];
}

/** What is said of a rule; null, here and below, to leave it as it comes. */
export class RuleSettingBody {
  @IsString()
  @MaxLength(60)
  ruleId!: string;

  @ValidateIf((body: RuleSettingBody) => body.effect !== null)
  @IsIn(ruleEffects)
  effect!: RuleEffect | null;

  /** In the unit of the rule's own threshold. */
  @ValidateIf((body: RuleSettingBody) => body.threshold !== null)
  @IsNumber({ maxDecimalPlaces: 2 }, { message: 'a number with at most two decimals' })
  threshold!: number | null;

  @Nested(() => RuleExceptionsBody)
  exceptions!: RuleExceptionsBody;
}

/** All that is set in a school, or in the district, at once. */
export class SaveRuleSettingsRequest {
  @NestedList(() => RuleSettingBody, mostRules, `at most ${mostRules} rules`)
  rules!: RuleSettingBody[];

  /** Of the settings that were looked at. */
  @IsString()
  revision!: string;
}

export class NightlyAuditRequest {
  /** Time of day in the district's zone; null for no nightly audit. */
  @ValidateIf((request: NightlyAuditRequest) => request.at !== null)
  @IsTimeOfDay()
  at!: string | null;

  /** Of what was set when it was looked at. */
  @IsString()
  revision!: string;
}

/** What a school, or the district, says of a rule; null for nothing. */
export interface SetRuleReply {
  readonly effect: RuleEffect | null;
  readonly threshold: number | null;
  readonly exceptions: RuleExceptions;
}

export interface RuleSettingReply {
  readonly id: string;
  readonly family: string;
  readonly summary: string;
  readonly why: string;
  readonly scope: Scope;
  /** As it comes. */
  readonly own: Severity;
  readonly district: SetRuleReply;
  readonly school: SetRuleReply;
  readonly inForce: RuleEffect;
  /** Where it begins to find something, as it comes and within which limits; null for a rule that has no such thing. */
  readonly measure: RuleThreshold | null;
}

export interface RuleSettingsReply {
  readonly rules: readonly RuleSettingReply[];
  readonly schoolRevision: string;
  readonly districtRevision: string;
  /** Of the school, to be left alone by a rule. */
  readonly departments: readonly string[];
  readonly courses: readonly { readonly id: number; readonly code: string; readonly title: string }[];
  /** When its periods are audited by themselves; null for never. */
  readonly nightly: { readonly at: string; readonly setBy: string } | null;
  readonly nightlyRevision: string;
}
