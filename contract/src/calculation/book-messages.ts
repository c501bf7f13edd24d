import { IsDay, NestedList } from '#contract/requests';
import { scoreFlags, type ScoreFlag } from '#core/calculation';
import type { RoundingName } from '#core/numbers';
import type { BandBody } from '#contract/scales';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Length,
  Matches,
  ValidateIf,
} from 'class-validator';
import type { CategoryReply, PolicyBody } from './policy-messages.js';

const pointsText = /^\d{1,4}(\.\d{1,2})?$/;

export class ScoreChangeBody {
  @IsInt()
  assignmentId!: number;

  @IsInt()
  enrollmentId!: number;

  /** The version of the score that the change was made on; 0 when there was none. */
  @IsInt()
  version!: number;

  @ValidateIf((score: ScoreChangeBody) => score.points !== null)
  @Matches(pointsText, { message: 'points from 0 to 9999.99 with at most two decimals, such as 8.5' })
  points!: string | null;

  @ValidateIf((score: ScoreChangeBody) => score.flag !== null)
  @IsIn(scoreFlags)
  flag!: ScoreFlag | null;
}

export class SaveScoresRequest {
  @ArrayMinSize(1, { message: 'at least one change' })
  @NestedList(() => ScoreChangeBody, 5000, 'at most 5,000 changes at once')
  changes!: ScoreChangeBody[];
}

export class AssignmentBody {
  @IsString()
  @Length(1, 80, { message: 'a name of 1 to 80 characters' })
  name!: string;

  @IsInt({ message: 'a category of the section' })
  categoryId!: number;

  @Matches(pointsText, { message: 'points from 0 to 9999.99, such as 20; 0 for an assignment that only adds' })
  possible!: string;

  @IsDay()
  dueOn!: string;

  @IsBoolean()
  isExtra!: boolean;

  @IsBoolean()
  isCounted!: boolean;

  @IsBoolean()
  isPublished!: boolean;

  /** The enrollments it is given to; null for everybody. */
  @ValidateIf((assignment: AssignmentBody) => assignment.givenTo !== null)
  @IsArray()
  @ArrayMinSize(1, { message: 'at least one student, or everybody' })
  @ArrayMaxSize(500)
  @IsInt({ each: true })
  givenTo!: number[] | null;
}

export class AddAssignmentRequest extends AssignmentBody {
  /** Sections of the same course that get the same assignment, beside the one it is made in. */
  @IsArray()
  @ArrayMaxSize(50)
  @IsInt({ each: true })
  alsoIn!: number[];
}

export class ChangeAssignmentRequest extends AssignmentBody {
  @IsInt()
  version!: number;
}

export interface AssignmentReply extends AssignmentBody {
  readonly id: number;
  readonly version: number;
}

export interface ScoreReply {
  readonly assignmentId: number;
  readonly enrollmentId: number;
  readonly points: string | null;
  readonly flag: ScoreFlag | null;
  readonly version: number;
}

export interface BookStudentReply {
  readonly enrollmentId: number;
  readonly studentId: number;
  readonly student: string;
  readonly studentNumber: string;
  readonly withdrawnOn: string | null;
  /** What is posted for the item that takes its value from the book; null where nothing is. */
  readonly posted: { readonly percent: string | null; readonly mark: string } | null;
}

/** A section's grade book in one period. */
export interface BookReply {
  readonly sectionId: number;
  readonly section: string;
  readonly course: string;
  readonly teacher: string;
  readonly period: { readonly id: number; readonly name: string; readonly startsOn: string; readonly endsOn: string };
  /** Whether the person may change scores and assignments: the section's own teacher, while the period is not sealed. */
  readonly canEdit: boolean;
  readonly sealedAt: string | null;
  readonly categories: readonly CategoryReply[];
  /** Of the section's own list of categories. */
  readonly revision: string;
  readonly policy: PolicyBody;
  readonly policyFrom: string;
  /** The item that takes its value from the book; null where none does in this period. */
  readonly item: {
    readonly id: number;
    readonly name: string;
    readonly digits: number;
    readonly rounding: RoundingName;
    /** Null where no scale is in force, a fault of the set-up. */
    readonly bands: readonly BandBody[] | null;
    readonly scaleName: string | null;
  } | null;
  readonly assignments: readonly AssignmentReply[];
  readonly students: readonly BookStudentReply[];
  readonly scores: readonly ScoreReply[];
  /** The other sections of the course in this period. */
  readonly sisters: readonly { readonly sectionId: number; readonly section: string; readonly isOwn: boolean }[];
}
