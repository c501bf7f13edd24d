import type { Day } from '#core/calendar';
import { IsDay } from '#contract/requests';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsBoolean, IsInt, IsString, Max, Min, ValidateIf } from 'class-validator';
import { mostMoved, type MovePreviewRowReply, type RoomReply } from './moving-messages.js';

/** Several sections of a course become one of them. */
export class MergeSectionsRequest {
  /** Those that end. */
  @IsArray()
  @ArrayMinSize(1, { message: 'at least one section beside the one that stays' })
  @ArrayMaxSize(10, { message: 'at most 10 sections at a time' })
  @IsInt({ each: true })
  sectionIds!: number[];

  /** The one that stays. */
  @IsInt({ message: 'the section that stays' })
  intoId!: number;

  /** The first day on which all sit in the one that stays. */
  @IsDay()
  enteredOn!: Day;

  /** Whether who teach the sections that end teach the one that stays too, beside its teacher. */
  @IsBoolean()
  teachersStay!: boolean;
}

export class CarryOutMergeSectionsRequest extends MergeSectionsRequest {
  /** Of the preview that was looked at. */
  @IsString()
  previewId!: string;
}

export interface MergeSectionsPreviewReply extends RoomReply {
  readonly previewId: string;
  readonly into: string;
  /** Of the sections that end. */
  readonly lastDay: Day;
  readonly ending: readonly string[];
  /** Sections that go, as nobody has sat in them yet. */
  readonly removed: readonly string[];
  /** Assignments that only sections that end have; they come along for those who have scores of them. */
  readonly brought: number;
  readonly rows: readonly MovePreviewRowReply[];
}

/** A part of the students of a section gets a section of its own. */
export class SplitSectionRequest {
  @IsInt({ message: 'the section that is split' })
  sectionId!: number;

  @IsArray()
  @ArrayMinSize(1, { message: 'at least one enrollment' })
  @ArrayMaxSize(mostMoved, { message: `at most ${mostMoved} enrollments at a time` })
  @IsInt({ each: true })
  enrollmentIds!: number[];

  @IsInt({ message: 'who teaches the new section' })
  teacherId!: number;

  /** How many the new section has room for; null where nobody says. */
  @ValidateIf((request: SplitSectionRequest) => request.seats !== null)
  @IsInt({ message: 'how many students there is room for, from 1 to 999' })
  @Min(1)
  @Max(999)
  seats!: number | null;

  /** The first day of the new section. */
  @IsDay()
  enteredOn!: Day;
}

export class CarryOutSplitSectionRequest extends SplitSectionRequest {
  /** Of the preview that was looked at. */
  @IsString()
  previewId!: string;
}

/** What a section may have of its own that another one of its course does not have. */
export type OwnSetUp = 'calculation' | 'categories' | 'scale';

export interface SplitSectionPreviewReply extends RoomReply {
  readonly previewId: string;
  /** Of the new section. */
  readonly name: string;
  /** In the section that is split. */
  readonly lastDay: Day;
  readonly rows: readonly MovePreviewRowReply[];
  /** Assignments that the new section gets too: those of periods that are not sealed and end on the day or later. */
  readonly assignments: number;
  /** What the section that is split has of its own, and the new one begins without. */
  readonly without: readonly OwnSetUp[];
}
