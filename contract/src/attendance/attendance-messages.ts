import { ArrayMinSize, IsBoolean, IsIn, IsInt, IsString, MaxLength, ValidateIf } from 'class-validator';
import { absenceKinds, type AbsenceKind, type AttendanceCells, type AttendanceField } from '#core/attendance';
import type { Day } from '#core/calendar';
import type { NamedThing } from '#core/sections';
import type { TableImportReply } from '#contract/cell-tables';
import { IsDay, NestedList } from '#contract/requests';

/** A section on the list of those whose attendance is taken. */
export interface AttendanceSectionReply {
  readonly sectionId: number;
  readonly section: string;
  readonly courseCode: string;
  readonly teacher: string;
  readonly students: number;
  /** School days of the period until today on which the section runs, and how many of their registers are taken. */
  readonly days: number;
  readonly taken: number;
  /** The last day whose register is taken; null where none is. */
  readonly lastTaken: Day | null;
}

export interface AttendanceListReply {
  readonly schoolId: number;
  readonly takesAttendance: boolean;
  readonly today: Day;
  readonly sections: readonly AttendanceSectionReply[];
}

export interface RegisterDayReply {
  readonly day: Day;
  /** Null where the register is not taken. */
  readonly taken: { readonly by: string; readonly at: string } | null;
  /** Of the register that a change begins from. */
  readonly revision: string;
}

export interface RegisterStudentReply {
  readonly enrollmentId: number;
  readonly student: string;
  /** From when to when the student sits in the section, both included; null while they do. */
  readonly enteredOn: Day;
  readonly withdrawnOn: Day | null;
  /** Absences by day; on a day that is taken whoever has none was present. */
  readonly absences: Readonly<Record<Day, AbsenceKind>>;
  /** On how many days of the period until today the student was missing, of those that were taken. */
  readonly missed: number;
  readonly of: number;
}

/** The school days of a week of a section, and who came. */
export interface RegisterReply {
  readonly sectionId: number;
  readonly section: string;
  readonly teacher: string;
  readonly takesAttendance: boolean;
  readonly mayTake: boolean;
  readonly today: Day;
  readonly days: readonly RegisterDayReply[];
  /** The Mondays of the weeks before and after it with classes; null where the section does not run then, or not yet. */
  readonly weekBefore: Day | null;
  readonly weekAfter: Day | null;
  readonly students: readonly RegisterStudentReply[];
}

export class AbsenceBody {
  @IsInt()
  enrollmentId!: number;

  @IsIn(absenceKinds, { message: `one of ${absenceKinds.join(', ')}` })
  kind!: AbsenceKind;
}

/** A day of a section as it is to be. */
export class RegisterBody {
  @IsDay()
  day!: Day;

  @IsString()
  revision!: string;

  /** Null for a register that is not taken after all. */
  @ValidateIf((body: RegisterBody) => body.absences !== null)
  @NestedList(() => AbsenceBody, 2000, 'at most 2000 students')
  absences!: AbsenceBody[] | null;
}

export class SaveRegistersRequest {
  @NestedList(() => RegisterBody, 31, 'at most 31 days')
  days!: RegisterBody[];
}

export class TakesAttendanceRequest {
  @IsBoolean()
  takesAttendance!: boolean;
}

/** What a file of attendance would change. */
export interface AttendanceImportReply extends TableImportReply<AttendanceField> {
  /** The students whom its cells name. */
  readonly students: readonly NamedThing[];
  /** Of the attendance that was looked at. */
  readonly revision: string;
  /** Registers that would be taken by it: in each, whoever is not in the file was present. */
  readonly registers: number;
}

/** A row of the file, as its preview told it. */
export class AttendanceRowBody implements AttendanceCells {
  @IsString()
  @MaxLength(200, { message: 'at most 200 characters' })
  section!: string;

  @IsString()
  @MaxLength(200, { message: 'at most 200 characters' })
  student!: string;

  @IsString()
  @MaxLength(200, { message: 'at most 200 characters' })
  day!: string;

  @IsString()
  @MaxLength(200, { message: 'at most 200 characters' })
  status!: string;
}

export class ImportAttendanceRequest {
  /** Of the attendance that was looked at. */
  @IsString()
  revision!: string;

  @ArrayMinSize(1, { message: 'at least one row' })
  @NestedList(() => AttendanceRowBody, 20_000, 'at most 20,000 rows at once')
  rows!: AttendanceRowBody[];
}

export interface ImportedAttendanceReply {
  readonly rows: number;
  readonly registers: number;
}
