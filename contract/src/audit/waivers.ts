import type { WaiverState } from '#core/audit';
import type { Day } from '#core/calendar';
import { IsDay, NestedList } from '#contract/requests';
import { ArrayMinSize, IsInt, IsString, Matches, MaxLength, ValidateIf } from 'class-validator';
import { FindingKeyBody, mostFindings } from './finding-keys.js';

/** A finding with the waiver that it had when it was looked at. */
export class WaivedFindingBody extends FindingKeyBody {
  /** As `FindingReply` has it. */
  @IsString()
  waiverRevision!: string;
}

/** Ends the waivers of some findings. */
export class EndWaiversRequest {
  @IsInt()
  periodId!: number;

  @ArrayMinSize(1, { message: 'at least one finding' })
  @NestedList(() => WaivedFindingBody, mostFindings, `at most ${mostFindings} findings at once`)
  findings!: WaivedFindingBody[];
}

export class WaiveRequest extends EndWaiversRequest {
  @IsString()
  @Matches(/\S{3}|\S.*\S.*\S/s, { message: 'a reason that whoever reads it later understands' })
  @MaxLength(500, { message: 'at most 500 characters' })
  reason!: string;

  /** The last day on which it holds; null for good. */
  @ValidateIf((request: WaiveRequest) => request.until !== null)
  @IsDay()
  until!: Day | null;
}

/** A reasoned decision to let a finding stand. */
export interface WaiverReply {
  readonly by: string;
  readonly at: string;
  readonly reason: string;
  readonly until: Day | null;
  readonly state: WaiverState;
}
