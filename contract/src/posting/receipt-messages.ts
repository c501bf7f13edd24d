import { IsDay } from '#contract/requests';
import type { Day } from '#core/calendar';
import { IsOptional } from 'class-validator';
import type { MarkBody } from './posting-messages.js';

export interface ReceiptReply {
  readonly id: number;
  readonly savedBy: string;
  readonly savedAt: string;
  /** The teacher, where somebody else posted for them. */
  readonly onBehalfOf: string | null;
  readonly changes: readonly ReceiptChangeReply[];
}

/** A receipt among others: of which sheet it is. */
export interface SheetReceiptReply extends ReceiptReply {
  readonly sectionId: number;
  readonly section: string;
  readonly itemId: number;
  readonly item: string;
  readonly periodId: number;
  readonly period: string;
}

export class ReceiptsQuery {
  /** In the district's time zone; today where it is absent. */
  @IsOptional()
  @IsDay()
  day?: string;
}

export interface DayReceiptsReply {
  readonly day: Day;
  readonly receipts: readonly SheetReceiptReply[];
}

export interface ReceiptChangeReply {
  readonly student: string;
  readonly before: MarkBody | null;
  readonly after: MarkBody;
}
