import type { SheetCounts, SheetTotals } from '#core/board';
import type { WindowReply } from '#contract/calendar';
import type { SignOffReply } from '#contract/posting';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsInt,
  IsOptional,
  IsString,
  MaxLength,
} from 'class-validator';

/** More teachers than any school has. */
const mostTeachers = 5000;

export interface SheetReminderReply {
  readonly times: number;
  /** Of the last one: when, and by whom. */
  readonly at: string;
  readonly by: string;
}

export interface BoardSheetReply extends SheetCounts {
  readonly itemId: number;
  readonly signedOff: SignOffReply | null;
  readonly reminded: SheetReminderReply | null;
  /** Grades that a teacher typed before the window closed and asks to have posted. */
  readonly requests: number;
}

export interface BoardSectionReply {
  readonly sectionId: number;
  readonly section: string;
  readonly courseCode: string;
  readonly department: string;
  readonly teacherId: number;
  readonly teacher: string;
  /** Of the items that the section reports in the period. */
  readonly sheets: readonly BoardSheetReply[];
}

export interface BoardItemReply {
  readonly itemId: number;
  readonly name: string;
  readonly heading: string;
  readonly window: WindowReply | null;
}

export interface BoardReply {
  /** ISO instant, by the server's clock. */
  readonly now: string;
  readonly sealedAt: string | null;
  readonly items: readonly BoardItemReply[];
  readonly sections: readonly BoardSectionReply[];
}

/** How far a school is in the period that is posted there now. */
export interface BoardSchoolReply extends SheetTotals {
  readonly schoolId: number;
  readonly school: string;
  readonly periodId: number;
  readonly period: string;
  readonly sealedAt: string | null;
}

export class RemindersRequest {
  @IsArray()
  @ArrayMinSize(1, { message: 'at least one teacher' })
  @ArrayMaxSize(mostTeachers)
  @ArrayUnique()
  @IsInt({ each: true })
  teacherIds!: number[];

  /** What the registrar adds at the end of each message. */
  @IsOptional()
  @IsString()
  @MaxLength(1000, { message: 'at most 1,000 characters' })
  note?: string;

  /** The fingerprint of the preview that is sent; absent to preview. */
  @IsOptional()
  @IsString()
  fingerprint?: string;
}

export interface ReminderReply {
  readonly teacherId: number;
  readonly teacher: string;
  readonly address: string;
  readonly sheets: number;
  /** How many reminders for these sheets went before it. */
  readonly earlier: number;
  readonly subject: string;
  readonly text: string;
}

export interface RemindersReply {
  readonly fingerprint: string;
  readonly messages: readonly ReminderReply[];
  /** Teachers who get none, and why. */
  readonly skipped: readonly { readonly teacher: string; readonly why: string }[];
  readonly isSent: boolean;
}
