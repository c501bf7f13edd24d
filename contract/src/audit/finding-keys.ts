import { NestedList } from '#contract/requests';
import { ArrayMinSize, IsInt, IsOptional, IsString, MaxLength } from 'class-validator';

/** A finding of the last audit of a period. */
export class FindingKeyBody {
  @IsString()
  @MaxLength(60)
  ruleId!: string;

  /** What it is about; null, here and below, for what it is not about. */
  @IsOptional()
  @IsInt()
  enrollmentId!: number | null;

  @IsOptional()
  @IsInt()
  sectionId!: number | null;

  @IsOptional()
  @IsInt()
  courseId!: number | null;

  @IsOptional()
  @IsInt()
  itemId!: number | null;
}

/** More findings than anybody waives for one reason. */
const mostWaived = 500;

export class EndWaiversRequest {
  @IsInt()
  periodId!: number;

  @ArrayMinSize(1, { message: 'at least one finding' })
  @NestedList(() => FindingKeyBody, mostWaived, `at most ${mostWaived} findings at once`)
  findings!: FindingKeyBody[];
}
