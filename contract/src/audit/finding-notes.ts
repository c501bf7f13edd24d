import { IsInt, IsString, MaxLength, ValidateIf } from 'class-validator';
import { SeenFindingsRequest } from './finding-keys.js';

/** Says whose findings are, and what is being done about them; with neither, what was said before is taken away. */
export class NoteFindingsRequest extends SeenFindingsRequest {
  @IsString()
  @MaxLength(1000, { message: 'at most 1,000 characters' })
  comment!: string;

  /** Somebody who may settle findings of the period; null for nobody. */
  @ValidateIf((request: NoteFindingsRequest) => request.assignedTo !== null)
  @IsInt({ message: 'a person, or nobody' })
  assignedTo!: number | null;
}

export interface AssigneeReply {
  readonly id: number;
  /** As it is spoken. */
  readonly name: string;
}

/** What was said of a finding last. */
export interface FindingNoteReply {
  readonly comment: string;
  readonly assignedTo: AssigneeReply | null;
  readonly by: string;
  readonly at: string;
}
