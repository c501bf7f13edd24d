import type { KeptRow, SavedRows, TableImportReply } from '#contract/cell-tables';
import { Nested, NestedList } from '#contract/requests';
import type { Day } from '#core/calendar';
import type { EnrollmentCells, EnrollmentField, NamedThing, SectionCells, SectionField } from '#core/sections';
import { ArrayMaxSize, IsArray, IsInt, IsString, MaxLength, ValidateIf } from 'class-validator';

/** The cells of a section; each is text as in a spreadsheet. */
export class SectionCellsBody implements SectionCells {
  @IsString()
  @MaxLength(200)
  course!: string;

  @IsString()
  @MaxLength(200)
  number!: string;

  @IsString()
  @MaxLength(200)
  teacher!: string;

  @IsString()
  @MaxLength(600)
  coTeachers!: string;

  @IsString()
  @MaxLength(200)
  period!: string;

  @IsString()
  @MaxLength(200)
  startsOn!: string;

  @IsString()
  @MaxLength(200)
  endsOn!: string;

  @IsString()
  @MaxLength(200)
  seats!: string;
}

/** A changed or, with `id` null, a new section. */
export class SectionChangeBody {
  @ValidateIf((change: SectionChangeBody) => change.id !== null)
  @IsInt()
  id!: number | null;

  /** Of the section that the change began from; empty for a new one. */
  @IsString()
  revision!: string;

  @Nested(() => SectionCellsBody)
  cells!: SectionCellsBody;
}

export class SaveSectionsRequest {
  @NestedList(() => SectionChangeBody, 5000, 'at most 5,000 sections at a time')
  changes!: SectionChangeBody[];

  /** Sections to delete; only one that nothing hangs on can go. */
  @IsArray()
  @ArrayMaxSize(5000)
  @IsInt({ each: true })
  removed!: number[];
}

/** A stretch of days, both ends in it. */
export interface DaysReply {
  readonly id: number;
  readonly startsOn: Day;
  readonly endsOn: Day;
}

/** What cells name, with the days of what has days. */
export type NamedDaysReply = NamedThing & DaysReply;

export interface SectionRowReply extends KeptRow<SectionField> {
  /** What it is called elsewhere: "Weaving 2". */
  readonly name: string;
  /** Who sit in it, or have sat. */
  readonly students: number;
  /** Who have not left it. */
  readonly staying: number;
  /** Whether a roster of another system brought it: its next import writes its course, teacher and period again. */
  readonly isOfRoster: boolean;
}

/** The sections of one year of a school, and what their cells name. */
export interface SectionsReply {
  readonly yearId: number;
  readonly courses: readonly NamedThing[];
  readonly staff: readonly NamedThing[];
  /** The year and the periods in it. */
  readonly periods: readonly NamedDaysReply[];
  readonly sections: readonly SectionRowReply[];
}

export type SavedSectionsReply = SectionsReply & SavedRows;
export type SectionsImportReply = TableImportReply<SectionField>;

/** The cells of an enrollment; each is text as in a spreadsheet. */
export class EnrollmentCellsBody implements EnrollmentCells {
  @IsString()
  @MaxLength(200)
  section!: string;

  @IsString()
  @MaxLength(200)
  student!: string;

  @IsString()
  @MaxLength(200)
  enteredOn!: string;

  @IsString()
  @MaxLength(200)
  withdrawnOn!: string;
}

/** A changed or, with `id` null, a new enrollment. */
export class EnrollmentChangeBody {
  @ValidateIf((change: EnrollmentChangeBody) => change.id !== null)
  @IsInt()
  id!: number | null;

  /** Of the enrollment that the change began from; empty for a new one. */
  @IsString()
  revision!: string;

  @Nested(() => EnrollmentCellsBody)
  cells!: EnrollmentCellsBody;
}

export class SaveEnrollmentsRequest {
  @NestedList(() => EnrollmentChangeBody, 20_000, 'at most 20,000 enrollments at a time')
  changes!: EnrollmentChangeBody[];

  /** Enrollments to delete; only one that has no grade and no score can go. */
  @IsArray()
  @ArrayMaxSize(20_000)
  @IsInt({ each: true })
  removed!: number[];
}

export interface EnrollmentRowReply extends KeptRow<EnrollmentField> {
  readonly sectionId: number;
  /** Whether a roster of another system brought it: its next import writes its days again. */
  readonly isOfRoster: boolean;
}

/** Who sits in the sections of one year of a school, and what the cells name. */
export interface EnrollmentsReply {
  readonly yearId: number;
  readonly year: Omit<DaysReply, 'id'>;
  readonly sections: readonly NamedDaysReply[];
  readonly students: readonly NamedThing[];
  readonly enrollments: readonly EnrollmentRowReply[];
}

export type SavedEnrollmentsReply = EnrollmentsReply & SavedRows;
export type EnrollmentsImportReply = TableImportReply<EnrollmentField>;
