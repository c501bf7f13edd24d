import { NestedList } from '#contract/requests';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  MaxLength,
} from 'class-validator';
import { MarkChangeBody } from './posting-messages.js';

/** The longest note to a registrar. */
export const longestNote = 1000;

export class SignOffRequest {
  /** For the registrar. */
  @IsString()
  @MaxLength(longestNote, { message: 'at most 1,000 characters' })
  note!: string;

  /** Said by a registrar who knows that the window of the period is not open. */
  @IsOptional()
  @IsBoolean()
  outsideWindow?: boolean;
}

/** Signs off several standards of a section at once. */
export class SignStandardsRequest extends SignOffRequest {
  @ArrayMinSize(1, { message: 'at least one standard' })
  @ArrayMaxSize(60, { message: 'at most 60 standards at once' })
  @ArrayUnique()
  @IsInt({ each: true })
  itemIds!: number[];
}

/** Asks a registrar to post what was typed, where whoever typed it may not any more. */
export class PostingRequestRequest {
  @ArrayMinSize(1, { message: 'at least one change' })
  @NestedList(() => MarkChangeBody, 500, 'at most 500 changes at once')
  changes!: MarkChangeBody[];

  @IsString()
  @MaxLength(longestNote, { message: 'at most 1,000 characters' })
  note!: string;
}

/** What came of a request: a registrar posted it or declined it, or whoever asked withdrew it. */
export class PostingAnswerRequest {
  @IsIn(['posted', 'declined', 'withdrawn'])
  state!: 'posted' | 'declined' | 'withdrawn';

  @IsString()
  @MaxLength(longestNote, { message: 'at most 1,000 characters' })
  answer!: string;
}

export interface PostingRequestReply {
  readonly id: number;
  readonly askedBy: string;
  /** Whether it is the reader's own. */
  readonly isOwn: boolean;
  readonly askedAt: string;
  readonly changes: readonly MarkChangeBody[];
  readonly note: string;
  readonly state: 'open' | 'posted' | 'declined' | 'withdrawn';
  readonly answer: string;
  readonly answeredBy: string | null;
}

/** A teacher's word that a sheet is finished. */
export interface SignOffReply {
  readonly by: string;
  /** The teacher, where somebody else signed off for them. */
  readonly onBehalfOf: string | null;
  /** ISO instant. */
  readonly at: string;
  readonly note: string;
}

/** What is said of a sheet as a whole. */
export interface SheetWordReply {
  readonly signedOff: SignOffReply | null;
}
