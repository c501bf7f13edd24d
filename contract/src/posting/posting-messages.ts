import { IsDay, NestedList } from '#contract/requests';
import type { WindowReply } from '#contract/calendar';
import type { BandBody } from '#contract/scales';
import type { CodeBody } from '#contract/codes';
import type { AttendanceSummary } from '#core/attendance';
import type { RuleEffect } from '#core/audit';
import type { Day } from '#core/calendar';
import type { RoundingName } from '#core/numbers';
import type { Pronoun } from '#core/people';
import type { CommentRule, ItemKind, ItemSource } from '#core/report-items';
import { ArrayMinSize, IsBoolean, IsInt, IsOptional, IsString, Matches, MaxLength, ValidateIf } from 'class-validator';
import type { ReceiptReply } from './receipt-messages.js';
import type { PostingRequestReply, SignOffReply } from './word-messages.js';

/** The longest comment that any item may allow; the item itself says how long its own may be. */
export const longestComment = 2000;
const longestReason = 200;

export class MarkBody {
  @ValidateIf((mark: MarkBody) => mark.percent !== null)
  @Matches(/^\d{1,3}(\.\d{1,2})?$/, { message: 'a percentage from 0 to 200 with at most two decimals, such as 86.4' })
  percent!: string | null;

  @ValidateIf((mark: MarkBody) => mark.label !== null)
  @IsString()
  @MaxLength(12)
  label!: string | null;

  @ValidateIf((mark: MarkBody) => mark.code !== null)
  @IsString()
  @MaxLength(12)
  code!: string | null;

  @ValidateIf((mark: MarkBody) => mark.lastDate !== null)
  @IsDay()
  lastDate!: string | null;

  @ValidateIf((mark: MarkBody) => mark.hours != null)
  @Matches(/^\d{1,4}(\.\d{1,2})?$/, { message: 'hours attended such as 42.5, or empty' })
  hours!: string | null;

  @IsString()
  @MaxLength(longestComment, { message: `at most ${longestComment} characters` })
  comment!: string;

  /** The comment is for the school alone. */
  @IsBoolean()
  isInternal!: boolean;

  /** Why it differs from what is computed. */
  @IsString()
  @MaxLength(longestReason, { message: `at most ${longestReason} characters` })
  overrideReason!: string;
}

export class MarkChangeBody extends MarkBody {
  @IsInt()
  enrollmentId!: number;

  /** The version of the grade that the change was made on; 0 when nothing was posted. */
  @IsInt()
  version!: number;
}

export class SaveSheetRequest {
  @ArrayMinSize(1, { message: 'at least one change' })
  @NestedList(() => MarkChangeBody, 500, 'at most 500 changes at once')
  changes!: MarkChangeBody[];

  /** Said by a registrar who knows that the window of the period is not open. */
  @IsOptional()
  @IsBoolean()
  outsideWindow?: boolean;
}

/** A section in the list of grade sheets. */
export interface SheetSummaryReply {
  readonly sectionId: number;
  readonly section: string;
  readonly courseCode: string;
  readonly department: string;
  readonly teacher: string;
  readonly expected: number;
  readonly posted: number;
}

export interface SheetListReply {
  readonly itemId: number;
  readonly itemName: string;
  readonly window: WindowReply | null;
  readonly sheets: readonly SheetSummaryReply[];
}

export interface SheetRowReply {
  readonly enrollmentId: number;
  readonly studentId: number;
  readonly student: string;
  readonly studentNumber: string;
  /** When the student came to the section, and left it. */
  readonly enteredOn: Day;
  readonly withdrawnOn: Day | null;
  /** What the section's registers tell of the period; null where the school takes no attendance. */
  readonly attendance: AttendanceSummary | null;
  /** What a learning platform's file says or the section's own grade book comes to; null where there is neither. */
  readonly computed: ComputedReply | null;
  /** Names of the assignments that keep the grade book from coming to a percentage. */
  readonly blockedBy: readonly string[];
  /** Null where the item is no composite. */
  readonly composite: CompositeReply | null;
  /** The legal given name, and last the one that the student goes by, where it is another. */
  readonly givenNames: readonly string[];
  /** How the student is spoken of in comments. */
  readonly pronoun: Pronoun;
  readonly mark: MarkBody;
  /** What was computed when the grade was posted; null where nothing was, or is. */
  readonly computedThen: string | null;
  /** 0 when nothing was ever saved. */
  readonly version: number;
  readonly postedBy: string | null;
  readonly postedAt: string | null;
  /** The bands of the version the grade was posted under, when it is not the sheet's own. */
  readonly scaleVersion: number;
}

/** What the posted parts of a composite come to. */
export type CompositeReply =
  | {
      readonly kind: 'value';
      /** As exact as it is kept, where parts count by percent. */
      readonly percent: string | null;
      /** The mean of grade points and the label it finds, where parts count by points. */
      readonly points: string | null;
      /** The mean of grade points once rounded as the item says, which finds the label. */
      readonly rounded: string | null;
      readonly label: string | null;
      readonly parts: readonly {
        readonly name: string;
        /** Where the part is posted, for the way to its own workings. */
        readonly itemId: number;
        readonly periodId: number;
        readonly value: string;
        readonly weight: string;
        /** Of 100, of the parts that counted. */
        readonly share: string;
      }[];
      readonly leftOut: readonly { readonly name: string; readonly code: string }[];
    }
  | { readonly kind: 'blocked'; readonly code: string; readonly by: string }
  | { readonly kind: 'missing'; readonly parts: readonly string[] }
  | { readonly kind: 'exempt'; readonly code: string };

export interface ComputedReply {
  readonly percent: string;
  /** The file that says it; null where the section's own grade book comes to it. */
  readonly file: FileSourceReply | null;
}

/** Where in which file a computed percent stands. */
export interface FileSourceReply {
  readonly fileName: string;
  readonly fileRow: number;
  readonly column: string;
  readonly acceptedAt: string;
  readonly acceptedBy: string;
}

export interface SheetReply {
  readonly sectionId: number;
  readonly section: string;
  readonly course: string;
  readonly teacher: string;
  readonly itemId: number;
  readonly itemName: string;
  readonly itemKind: ItemKind;
  /** Where its value comes from. */
  readonly source: ItemSource;
  readonly onTranscript: boolean;
  readonly countsInGpa: boolean;
  readonly failingNeedsLastDate: boolean;
  readonly asksHours: boolean;
  readonly commentRule: CommentRule;
  readonly commentBelow: string | null;
  readonly commentLength: number;
  readonly period: { readonly id: number; readonly name: string; readonly startsOn: Day; readonly endsOn: Day };
  readonly window: WindowReply | null;
  readonly sealedAt: string | null;
  /** Whether who asks may post in this section at all; whoever may not reads. */
  readonly mayPost: boolean;
  /** Whether the course lets a student be exempt. */
  readonly allowsExempt: boolean;
  /** What rules of the audit do in the course of the sheet, by their ids, where that is not what they do as they come. */
  readonly ruleEffects: Readonly<Record<string, RuleEffect>>;
  /** The teacher for whom the reader would post; null for whoever teaches the section. */
  readonly onBehalfOf: string | null;
  readonly signedOff: SignOffReply | null;
  /** Requests to post something here, open ones first. */
  readonly requests: readonly PostingRequestReply[];
  /** What comments may be chosen from, with words in braces. */
  readonly stockComments: readonly string[];
  readonly scaleName: string;
  /** What puts it in force: the report item, the school, honours courses and the like. */
  readonly scaleFrom: string;
  /** The scale versions that the sheet's grades use, the one in force among them. */
  readonly scales: readonly { readonly version: number; readonly bands: readonly BandBody[] }[];
  readonly scaleVersion: number;
  /** Where the sheet takes levels, the one at the top; null where it takes percents. */
  readonly highestLevel: string | null;
  /** The highest percentage that the item takes. */
  readonly highestPercent: string;
  readonly digits: number;
  readonly rounding: RoundingName;
  readonly codes: readonly CodeBody[];
  readonly rows: readonly SheetRowReply[];
  readonly receipts: readonly ReceiptReply[];
}

export interface SaveSheetReply {
  /** Null where nothing was changed. */
  readonly receipt: ReceiptReply | null;
  readonly rows: readonly SheetRowReply[];
}
