import { IsDay, NestedList } from '#contract/requests';
import { latePosters, periodKinds, type Day, type LatePosters, type PeriodKind } from '#core/calendar';
import {
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsISO8601,
  IsString,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateIf,
} from 'class-validator';

/** A period as it is saved. A new one has a number below 0, by which others may call it their parent. */
export class PeriodBody {
  @IsInt()
  id!: number;

  @ValidateIf((period: PeriodBody) => period.parentId !== null)
  @IsInt()
  parentId!: number | null;

  @IsIn(periodKinds, { message: `one of ${periodKinds.join(', ')}` })
  kind!: PeriodKind;

  @IsString()
  @Length(1, 40, { message: 'a name of 1 to 40 characters, such as Quarter 1' })
  name!: string;

  @IsDay()
  startsOn!: Day;

  @IsDay()
  endsOn!: Day;
}

export class BreakBody {
  @IsInt()
  id!: number;

  @IsString()
  @Length(1, 40, { message: 'a name of 1 to 40 characters, such as Winter break' })
  name!: string;

  @IsDay()
  startsOn!: Day;

  @IsDay()
  endsOn!: Day;
}

/** When an item is posted for a period. Times are ISO instants. */
export class WindowBody {
  @IsInt()
  itemId!: number;

  @IsInt()
  periodId!: number;

  @IsISO8601({ strict: true }, { message: 'an instant such as 2026-01-14T08:00:00Z' })
  opensAt!: string;

  @IsISO8601({ strict: true }, { message: 'an instant such as 2026-01-23T17:00:00Z' })
  closesAt!: string;

  @ValidateIf((window: WindowBody) => window.graceUntil !== null)
  @IsISO8601({ strict: true }, { message: 'an instant, or nothing' })
  graceUntil!: string | null;

  @IsIn(latePosters, { message: `one of ${latePosters.join(', ')}` })
  latePosters!: LatePosters;

  @IsString()
  @MaxLength(120, { message: 'at most 120 characters' })
  earlyReason!: string;
}

export class SaveCalendarRequest {
  /** Of the calendar that the change began from. */
  @IsString()
  revision!: string;

  @IsArray()
  @ArrayMinSize(1, { message: 'at least one day of the week with classes' })
  @IsInt({ each: true })
  @Min(1, { each: true })
  @Max(7, { each: true })
  weekdays!: number[];

  @NestedList(() => PeriodBody, 400)
  periods!: PeriodBody[];

  @NestedList(() => BreakBody, 400)
  breaks!: BreakBody[];

  @NestedList(() => WindowBody, 4000)
  windows!: WindowBody[];
}

/** Copies a year of the calendar onto the next, every day moved by the same whole weeks. */
export class CopyYearBody {
  @IsInt()
  schoolId!: number;

  /** Of the school's calendar, as it was looked at. */
  @IsString()
  revision!: string;

  @IsInt()
  yearId!: number;

  @IsString()
  @Length(1, 40, { message: 'a name of 1 to 40 characters, such as 2026–27' })
  name!: string;

  /** The first day of the new year. */
  @IsDay()
  startsOn!: Day;
}

/** The years of one or several schools, copied together or not at all. */
export class CopyYearsRequest {
  @ArrayMinSize(1, { message: 'at least one year' })
  @NestedList(() => CopyYearBody, 500)
  years!: CopyYearBody[];
}

/** A school's calendar with all its years. */
export interface CalendarReply {
  readonly school: { readonly id: number; readonly name: string; readonly shortName: string };
  readonly revision: string;
  readonly weekdays: readonly number[];
  readonly periods: readonly (PeriodBody & {
    readonly isSealed: boolean;
    readonly postedGrades: number;
    readonly sections: number;
  })[];
  readonly breaks: readonly BreakBody[];
  readonly windows: readonly (WindowBody & { readonly id: number })[];
  /** The items that windows are for. */
  readonly items: readonly {
    readonly id: number;
    readonly name: string;
    readonly periodKind: PeriodKind;
    readonly ordinals: readonly number[] | null;
  }[];
  /** Sections whose own dates differ from their period's. */
  readonly sections: readonly {
    readonly id: number;
    readonly name: string;
    readonly periodId: number;
    readonly startsOn: Day;
    readonly endsOn: Day;
  }[];
}
