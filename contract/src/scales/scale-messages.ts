import type { RoundingName } from '#core/numbers';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsString,
  Length,
  Matches,
  MaxLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

/** A band as it crosses the wire; numbers are decimal text, so that nothing is lost. */
export class BandBody {
  @IsString()
  @Length(1, 12, { message: 'a label of 1 to 12 characters, such as B+' })
  label!: string;

  @Matches(/^\d{1,3}(\.\d{1,2})?$/, { message: 'a percent from 0 to 100 with at most two decimals, such as 89.5' })
  lowest!: string;

  @ValidateIf((band: BandBody) => band.points !== null)
  @Matches(/^\d{1,2}(\.\d{1,2})?$/, { message: 'grade points such as 3.7, or empty' })
  points!: string | null;

  @IsBoolean()
  passes!: boolean;

  @IsBoolean()
  earnsCredit!: boolean;

  @IsString()
  @MaxLength(60, { message: 'at most 60 characters' })
  descriptor!: string;
}

export class SaveScaleRequest {
  /** The version that the draft began from. */
  @IsInt()
  basedOnVersion!: number;

  /** The period from which the new version is in force. */
  @IsInt()
  fromPeriodId!: number;

  @IsArray()
  @ArrayMaxSize(40, { message: 'at most 40 bands' })
  @ValidateNested({ each: true })
  @Type(() => BandBody)
  bands!: BandBody[];
}

export interface ScaleVersionReply {
  readonly number: number;
  readonly fromPeriod: string;
  readonly savedBy: string | null;
  readonly savedAt: string;
}

export interface ScaleReply {
  readonly id: number;
  readonly name: string;
  readonly itemName: string;
  readonly digits: number;
  readonly rounding: RoundingName;
  /** The version in force in the period asked for. */
  readonly version: ScaleVersionReply;
  readonly latestVersion: number;
  /** From the highest cut-off down. */
  readonly bands: readonly BandBody[];
  readonly versions: readonly ScaleVersionReply[];
  readonly coursesUsingIt: number;
  /** The period's percents, posted where there are some and computed otherwise, and how often each occurs. */
  readonly tallies: readonly { readonly percent: string; readonly grades: number }[];
}
