import { NestedList } from '#contract/requests';
import type { WeightState } from '#core/matching';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsInt, IsString, Matches } from 'class-validator';

/** Classes whose weights are settled at once, in one period. */
export class WeightsRequest {
  @IsInt()
  periodId!: number;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(2_000)
  @IsInt({ each: true })
  classIds!: number[];
}

export class TakeWeightsRequest extends WeightsRequest {
  /** Theirs become the policies of our sections; ours are sent to the platform. */
  @IsIn(['theirs', 'ours'])
  side!: 'theirs' | 'ours';
}

export class GroupWeightBody {
  /** The number of the group's name. */
  @IsInt()
  id!: number;

  @IsString()
  @Matches(/^\d{1,3}(\.\d{1,2})?$/, { message: 'a weight from 0 to 999.99' })
  weight!: string;
}

/** Weights that a platform had before it was sent ours. */
export class RestoreWeightsRequest {
  @IsInt()
  periodId!: number;

  @NestedList(() => GroupWeightBody, 20_000)
  groups!: GroupWeightBody[];
}

export interface ClassWeightsReply {
  readonly classId: number;
  readonly title: string;
  readonly sectionId: number;
  readonly section: string;
  readonly state: WeightState;
  /** Where our weights come from, in words. */
  readonly from: string;
  /** Weights in percent as decimal text; null on a side that does not weigh the category. */
  readonly rows: readonly {
    readonly categoryId: number;
    readonly theirs: string | null;
    readonly ours: string | null;
    readonly groups: number;
  }[];
  readonly theirSum: string;
}

export interface WeightsReply {
  readonly classes: readonly ClassWeightsReply[];
  readonly categories: readonly { readonly id: number; readonly name: string; readonly tint: number }[];
}

export interface WeightsTakenReply {
  readonly weights: WeightsReply;
  /** How many classes were settled. */
  readonly taken: number;
  /** What the platform had before where it was sent ours, to be sent back if that is to be undone. */
  readonly before: readonly GroupWeightBody[];
  /** Why the platform did not take the rest; null when it took all. */
  readonly problem: string | null;
}
