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

/** More findings than anybody settles at once. */
export const mostFindings = 500;

/** What is asked about findings of the last audit of a period. */
export class FindingsRequest {
  @IsInt()
  periodId!: number;

  @ArrayMinSize(1, { message: 'at least one finding' })
  @NestedList(() => FindingKeyBody, mostFindings, `at most ${mostFindings} findings at once`)
  findings!: FindingKeyBody[];
}

/** A finding with what stands of it where it is looked at: its waiver, or what was said of it. */
export class SeenFindingBody extends FindingKeyBody {
  /** As `FindingReply` has it. */
  @IsString()
  revision!: string;
}

/** What changes something that stands of some findings; it is refused where that is no longer what was seen. */
export class SeenFindingsRequest {
  @IsInt()
  periodId!: number;

  @ArrayMinSize(1, { message: 'at least one finding' })
  @NestedList(() => SeenFindingBody, mostFindings, `at most ${mostFindings} findings at once`)
  findings!: SeenFindingBody[];
}
