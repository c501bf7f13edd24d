import type { Day } from '#core/calendar';
import { IsDay } from '#contract/requests';
import type { MoveObstacle } from '#core/sections';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsInt, IsString } from 'class-validator';

/** At a time. */
export const mostMoved = 200;

export class MoveRequest {
  @IsArray()
  @ArrayMinSize(1, { message: 'at least one enrollment' })
  @ArrayMaxSize(mostMoved, { message: `at most ${mostMoved} enrollments at a time` })
  @IsInt({ each: true })
  enrollmentIds!: number[];

  /** Where they go. */
  @IsInt({ message: 'the section to move to' })
  sectionId!: number;

  /** Their first day there; the day before is the last one where they were. */
  @IsDay()
  enteredOn!: Day;
}

export class CarryOutMoveRequest extends MoveRequest {
  /** Of the preview that was looked at. */
  @IsString()
  previewId!: string;
}

export interface MovePreviewRowReply {
  readonly enrollmentId: number;
  readonly student: string;
  readonly from: string;
  /** Posted grades that go along: those of periods that are not sealed and end on the day or later. */
  readonly grades: number;
  /** Scores that count in the new section too, as it has the same assignments or gets them. */
  readonly scores: number;
  /** Scores of assignments that the new section does not have; they stay where they are. */
  readonly left: number;
  /** The student has not sat there yet, and comes to the new section as if it had been the first. */
  readonly isReseated: boolean;
  /** Why the student cannot move; null where nothing stands in the way. */
  readonly obstacle: MoveObstacle | null;
}

/** The room in a section once students have come to it. */
export interface RoomReply {
  readonly staying: number;
  /** Null where nobody said how many there is room for. */
  readonly seats: number | null;
}

export interface MovePreviewReply extends RoomReply {
  readonly previewId: string;
  readonly to: string;
  readonly lastDay: Day;
  readonly rows: readonly MovePreviewRowReply[];
}

export interface MovedReply {
  readonly moved: number;
}
