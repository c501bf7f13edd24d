import type { WaiverState } from '#core/audit';
import type { Day } from '#core/calendar';
import { IsDay } from '#contract/requests';
import { IsString, Matches, MaxLength, ValidateIf } from 'class-validator';
import { SeenFindingsRequest } from './finding-keys.js';

export class WaiveRequest extends SeenFindingsRequest {
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
