import { IsIn, IsInt, IsOptional } from 'class-validator';
import { Type } from 'class-transformer';
import type { Day } from '#core/calendar';
import type { FamilyTime, FamilyView } from '#core/report-items';

/** When families look: as things are now, as they will be once the windows have closed, and once the period is sealed. */
export const cardTimes = ['now', 'closed', 'sealed'] as const;
export type CardTime = (typeof cardTimes)[number];

export class ReportCardQuery {
  @Type(() => Number)
  @IsInt()
  period!: number;

  @IsOptional()
  @IsIn(cardTimes)
  when?: CardTime;
}

/** What families see of one grade, or why they see nothing. */
export type FamilyValueReply =
  | {
      readonly kind: 'shown';
      readonly label: string | null;
      readonly percent: string | null;
      readonly descriptor: string | null;
      readonly comment: string;
    }
  | { readonly kind: 'nothing posted' }
  | { readonly kind: 'never' }
  /** From an instant on, where one is known; a period is sealed when it is. */
  | { readonly kind: 'later'; readonly from: 'closed' | 'sealed'; readonly at: string | null };

export interface CardItemReply {
  readonly itemId: number;
  readonly name: string;
  readonly heading: string;
  readonly familyView: FamilyView;
  readonly familyTime: FamilyTime;
}

export interface CardCourseReply {
  readonly sectionId: number;
  readonly course: string;
  readonly teacher: string;
  readonly withdrawnOn: Day | null;
  /** By item, of those that the section reports. */
  readonly values: readonly { readonly itemId: number; readonly value: FamilyValueReply }[];
}

export interface ReportCardReply {
  readonly student: { readonly id: number; readonly name: string; readonly number: string };
  readonly school: string;
  readonly period: { readonly id: number; readonly name: string; readonly startsOn: Day; readonly endsOn: Day };
  readonly sealedAt: string | null;
  readonly items: readonly CardItemReply[];
  readonly courses: readonly CardCourseReply[];
}
