import { Nested, NestedList } from '#contract/requests';
import type { KeptRow, TableImportReply } from '#contract/cell-tables';
import type { CourseCells, CourseField, FactSource, InheritableFact } from '#core/courses';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Matches,
  MaxLength,
  ValidateIf,
} from 'class-validator';

/** The cells of a course; each is text as in a spreadsheet, empty where the fact is inherited. */
export class CourseCellsBody implements CourseCells {
  @IsString()
  @MaxLength(200)
  code!: string;

  @IsString()
  @MaxLength(200)
  title!: string;

  @IsString()
  @MaxLength(200)
  department!: string;

  @IsString()
  @MaxLength(200)
  kind!: string;

  @IsString()
  @MaxLength(200)
  level!: string;

  @IsString()
  @MaxLength(200)
  length!: string;

  @IsString()
  @MaxLength(200)
  credits!: string;

  @IsString()
  @MaxLength(200)
  mostCredits!: string;

  @IsString()
  @MaxLength(200)
  onTranscript!: string;

  @IsString()
  @MaxLength(200)
  countsInGpa!: string;

  @IsString()
  @MaxLength(200)
  allowsExempt!: string;
}

/** A changed or, with `id` null, a new course. */
export class CourseChangeBody {
  @ValidateIf((change: CourseChangeBody) => change.id !== null)
  @IsInt()
  id!: number | null;

  /** Of the course that the change began from; empty for a new one. */
  @IsString()
  revision!: string;

  @Nested(() => CourseCellsBody)
  cells!: CourseCellsBody;
}

export class SaveCoursesRequest {
  @NestedList(() => CourseChangeBody, 5000, 'at most 5,000 courses at a time')
  changes!: CourseChangeBody[];

  /** Courses to take out; only one that nothing hangs on can go. */
  @IsArray()
  @ArrayMaxSize(5000)
  @IsInt({ each: true })
  removed!: number[];
}

/** What holds where courses of a department, or of the school, say nothing. */
export class CourseDefaultsBody {
  @ValidateIf((defaults: CourseDefaultsBody) => defaults.department !== null)
  @IsString()
  @MaxLength(60)
  department!: string | null;

  @ValidateIf((defaults: CourseDefaultsBody) => defaults.credits !== null)
  @Matches(/^\d{1,2}(\.\d{1,4})?$/, { message: 'credits such as 0.5, or empty' })
  credits!: string | null;

  @ValidateIf((defaults: CourseDefaultsBody) => defaults.mostCredits !== null)
  @Matches(/^\d{1,2}(\.\d{1,4})?$/, { message: 'credits such as 1, or empty' })
  mostCredits!: string | null;

  @ValidateIf((defaults: CourseDefaultsBody) => defaults.onTranscript !== null)
  @IsBoolean()
  onTranscript!: boolean | null;

  @ValidateIf((defaults: CourseDefaultsBody) => defaults.countsInGpa !== null)
  @IsBoolean()
  countsInGpa!: boolean | null;

  @ValidateIf((defaults: CourseDefaultsBody) => defaults.allowsExempt !== null)
  @IsBoolean()
  allowsExempt!: boolean | null;
}

export class SaveCourseDefaultsRequest {
  /** Of the defaults that the change began from. */
  @IsString()
  revision!: string;

  @NestedList(() => CourseDefaultsBody, 200)
  defaults!: CourseDefaultsBody[];
}

/** The parts of a course's set-up that can be copied onto others. */
export const copiedParts = ['items', 'scale', 'facts'] as const;
export type CopiedPart = (typeof copiedParts)[number];

export class CopySetUpRequest {
  @IsArray()
  @ArrayMaxSize(2000)
  @IsInt({ each: true })
  toIds!: number[];

  @IsArray()
  @IsIn(copiedParts, { each: true, message: `each one of ${copiedParts.join(', ')}` })
  parts!: CopiedPart[];

  /** The period from which on a copied scale is used. */
  @IsInt()
  fromPeriodId!: number;
}

export interface CourseReply extends KeptRow<CourseField> {
  /** What holds for the facts that the course leaves empty, and who says so. */
  readonly inherited: Readonly<Record<InheritableFact, { readonly text: string; readonly from: FactSource }>>;
  readonly scale: { readonly name: string; readonly from: string } | null;
  readonly sections: number;
  readonly grades: number;
}

export interface CoursesReply {
  readonly courses: readonly CourseReply[];
  readonly defaults: readonly CourseDefaultsBody[];
  readonly defaultsRevision: string;
}

export type CourseImportReply = TableImportReply<CourseField>;

/** What copying a set-up onto courses would do, course by course. */
export interface CopySetUpReply {
  readonly courses: readonly {
    readonly id: number;
    readonly title: string;
    /** What would change, in words; none where it is the same already. */
    readonly changes: readonly string[];
    /** What to know first: grades posted, another term. */
    readonly warnings: readonly string[];
  }[];
}
