import { NestedList } from '#contract/requests';
import { codeParts, type CodePart } from '#core/codes';
import { IsBoolean, IsIn, IsInt, IsString, Length, Matches, Max, Min, ValidateIf } from 'class-validator';

/** A code with its effects, as it crosses the wire. */
export class CodeBody {
  @IsString()
  @Length(1, 8, { message: 'a code of 1 to 8 characters, such as INC' })
  code!: string;

  @IsString()
  @Length(1, 60, { message: 'what it means, in 1 to 60 characters' })
  meaning!: string;

  @IsBoolean()
  isOff!: boolean;

  @IsIn(codeParts, { message: `one of ${codeParts.join(', ')}` })
  asPart!: CodePart;

  @ValidateIf((code: CodeBody) => code.countsAs !== null)
  @Matches(/^\d{1,3}(\.\d{1,2})?$/, { message: 'a percentage from 0 to 100 with at most two decimals' })
  countsAs!: string | null;

  @IsBoolean()
  isFailing!: boolean;

  @IsBoolean()
  forbidsPercent!: boolean;

  @IsBoolean()
  needsLastDate!: boolean;

  @IsBoolean()
  needsFirstDay!: boolean;

  @ValidateIf((code: CodeBody) => code.lapsesInto !== null)
  @IsString()
  @Length(1, 12, { message: 'a label or another code' })
  lapsesInto!: string | null;

  @ValidateIf((code: CodeBody) => code.lapsesAfterDays !== null)
  @IsInt({ message: 'a whole number of days' })
  @Min(1, { message: 'at least one day' })
  @Max(3650, { message: 'at most ten years' })
  lapsesAfterDays!: number | null;

  @IsBoolean()
  triesCredit!: boolean;

  @IsBoolean()
  earnsCredit!: boolean;

  @IsBoolean()
  countsInGpa!: boolean;

  @IsBoolean()
  onTranscript!: boolean;
}

export class SaveCodesRequest {
  /** The revision of the list that the change began from. */
  @IsString()
  revision!: string;

  @NestedList(() => CodeBody, 60, 'at most 60 codes')
  codes!: CodeBody[];
}

export interface CodesReply {
  readonly revision: string;
  readonly codes: readonly (CodeBody & {
    /** Grades posted with it. */
    readonly grades: number;
  })[];
}
