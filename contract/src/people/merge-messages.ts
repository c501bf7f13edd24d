import { IsInt, IsString } from 'class-validator';
import type { DuplicateReason, FilledField, MergeObstacle, PersonCells } from '#core/people';
import type { Uses } from '../messages/index.js';

/** A record beside another that may be of the same person. */
export interface DuplicateRecordReply {
  readonly id: number;
  readonly cells: PersonCells;
  readonly school: string;
  readonly isOfRoster: boolean;
  readonly sections: number;
}

export interface DuplicateReply {
  readonly one: DuplicateRecordReply;
  readonly other: DuplicateRecordReply;
  readonly reasons: readonly DuplicateReason[];
}

export class DifferentPeopleRequest {
  @IsInt({ message: 'one of the records' })
  oneId!: number;

  @IsInt({ message: 'the other record' })
  otherId!: number;
}

export interface DifferentPeopleReply {
  readonly oneId: number;
  readonly otherId: number;
}

export class MergeRequest {
  @IsInt({ message: 'the record to keep' })
  keptId!: number;

  @IsInt({ message: 'the record that goes' })
  goneId!: number;
}

export class CarryOutMergeRequest extends MergeRequest {
  /** Of the preview that was looked at. */
  @IsString()
  previewId!: string;
}

/** What a merge would do. */
export interface MergePreviewReply {
  readonly previewId: string;
  readonly kept: DuplicateRecordReply;
  readonly gone: DuplicateRecordReply;
  /** Facts that the kept record takes from the other, as it lacks them. */
  readonly filled: readonly FilledField[];
  /** What goes along, by what it is called. */
  readonly moves: Uses['counts'];
  /** Sections in which both have a seat. */
  readonly shared: readonly string[];
  /** Why the two cannot be merged; none where they can. */
  readonly obstacles: readonly MergeObstacle[];
}
