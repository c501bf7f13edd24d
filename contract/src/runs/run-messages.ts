import {
  ledgerOutcomes,
  rowKinds,
  rowResults,
  runReasons,
  type AssignmentFacts,
  type LedgerOutcome,
  type LedgerRow,
  type MarkFacts,
  type RowKind,
  type RowResult,
  type RunReason,
  type RunReasonCode,
  type RunStage,
  type RunState,
  type ScoreFacts,
} from '#core/runs';
import type { RuleRemark } from '#contract/audit';
import { IsTimeOfDay } from '#contract/requests';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  ValidateIf,
} from 'class-validator';

/** What a run carries over, and what becomes of what is here already. */
export class RunChoicesBody {
  /** "keep" leaves what somebody here entered or changed; "replace" writes over it. */
  @IsIn(['keep', 'replace'])
  mode!: 'keep' | 'replace';

  /** Assignments and their scores. */
  @IsBoolean()
  carriesWork!: boolean;

  /** The totals of the classes, as posted marks. */
  @IsBoolean()
  carriesTotals!: boolean;
}

export class PlanRunRequest extends RunChoicesBody {
  @IsInt()
  platformId!: number;

  @IsInt()
  periodId!: number;
}

export const pickKinds = ['class', 'column', 'person', 'row'] as const;
export type PickKind = (typeof pickKinds)[number];

/** Takes lines of the plan in or leaves them out: those of a class, a column, a person, or single ones. */
export class PickRequest {
  @IsIn(pickKinds)
  kind!: PickKind;

  /** Numbers of classes or rows, or the platform's keys of columns or people. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(5_000)
  @IsString({ each: true })
  @Length(1, 400, { each: true })
  keys!: string[];

  @IsBoolean()
  isPicked!: boolean;
}

export class NightlyRequest extends RunChoicesBody {
  /** Time of day in the district's zone; null for no nightly run. */
  @ValidateIf((request: NightlyRequest) => request.at !== null)
  @IsTimeOfDay()
  at!: string | null;
}

export class DefaultCategoryRequest {
  @ValidateIf((request: DefaultCategoryRequest) => request.categoryId !== null)
  @IsInt({ message: 'a category of the school, or none' })
  categoryId!: number | null;
}

/** How many lines, with the scores that have none of their own, came to what. */
export interface LedgerCountsReply {
  readonly outcomes: Readonly<Record<LedgerOutcome, number>>;
  readonly results: Readonly<Record<RowResult, number>>;
  /** Lines to be written that somebody left out. */
  readonly leftOut: number;
  readonly blank: number;
  /** Scores that were not looked at, as what they belong to is not carried over. */
  readonly heldBack: number;
  readonly reasons: readonly ReasonCountReply[];
}

export interface ReasonCountReply {
  readonly code: RunReasonCode;
  /** "note" where the lines are carried over all the same. */
  readonly effect: 'skip' | 'refuse' | 'note';
  readonly lines: number;
  /** Scores held back with those lines. */
  readonly heldBack: number;
  readonly classes: number;
}

export interface RunSummaryReply {
  readonly id: number;
  readonly platformId: number;
  readonly platform: string;
  readonly periodId: number;
  readonly period: string;
  readonly stage: RunStage;
  readonly state: RunState;
  /** Classes that have the stage behind them, and of how many. */
  readonly done: number;
  readonly total: number;
  readonly mode: 'keep' | 'replace';
  readonly carriesWork: boolean;
  readonly carriesTotals: boolean;
  readonly isNightly: boolean;
  readonly problem: string | null;
  readonly startedBy: string;
  readonly startedAt: string;
  readonly endedAt: string | null;
  /** Null until the first stage ended. */
  readonly counts: LedgerCountsReply | null;
}

export interface RunReply extends RunSummaryReply {
  readonly counts: LedgerCountsReply;
  readonly classes: readonly RunClassReply[];
  readonly categories: readonly { readonly id: number; readonly name: string }[];
}

export interface RunClassReply {
  readonly classId: number;
  readonly title: string;
  readonly section: string | null;
  readonly sectionId: number | null;
  /** Lines that are or were to be written, and those of them that are picked. */
  readonly toWrite: number;
  readonly picked: number;
  readonly notSent: number;
}

export interface RunRowReply extends Omit<LedgerRow, 'itemId' | 'before' | 'after'> {
  readonly id: number;
  readonly classId: number;
  readonly reasons: readonly RunReason[];
  readonly before: AssignmentFacts | ScoreFacts | MarkFacts | null;
  readonly after: AssignmentFacts | ScoreFacts | MarkFacts | null;
  /** Name of the assignment or total that a score or mark stands in. */
  readonly column: string | null;
  readonly isPicked: boolean;
  readonly result: RowResult | null;
  /** Of a mark that waits to be carried out: what the rules of the audit would say of it, and do not say now. */
  readonly remarks: readonly RuleRemark[];
}

/** What the lines of a ledger are asked by; nothing asks for all. */
export class RunRowsQuery {
  @IsOptional()
  @IsIn(ledgerOutcomes)
  outcome?: LedgerOutcome;

  @IsOptional()
  @IsIn(rowKinds)
  kind?: RowKind;

  @IsOptional()
  @IsIn(Object.keys(runReasons))
  reason?: RunReasonCode;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  classId?: number;

  @IsOptional()
  @IsIn(rowResults)
  result?: RowResult;
}

export interface RunRowsReply {
  readonly rows: readonly RunRowReply[];
  /** How many there are altogether. */
  readonly total: number;
}

export interface NightlyReply {
  readonly at: string;
  readonly mode: 'keep' | 'replace';
  readonly carriesWork: boolean;
  readonly carriesTotals: boolean;
  readonly setBy: string;
}

/** The runs of a school's platforms, the newest first, and how each platform runs by itself. */
export interface RunsReply {
  readonly runs: readonly RunSummaryReply[];
  readonly platforms: readonly {
    readonly id: number;
    readonly name: string;
    readonly nightly: NightlyReply | null;
    readonly defaultCategoryId: number | null;
  }[];
  readonly categories: readonly { readonly id: number; readonly name: string }[];
}

/** The last run that carried a section over, as it stands beside that section's grades. */
export interface LastRunReply {
  readonly runId: number;
  readonly platform: string;
  readonly endedAt: string;
  readonly minutesAgo: number;
  readonly written: number;
  /** Lines of the section that were not sent. */
  readonly notSent: number;
}

/** A letter to a teacher about what of theirs was not sent. */
export interface RunLetterReply {
  readonly to: string;
  readonly address: string;
  readonly subject: string;
  readonly text: string;
  readonly lines: number;
}
