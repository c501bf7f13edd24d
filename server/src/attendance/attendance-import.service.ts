import { Injectable } from '@nestjs/common';
import {
  attendanceLetters,
  attendanceTable,
  entryOfCells,
  seatKey,
  sitsOn,
  type AbsenceKind,
  type AttendanceCells,
  type AttendanceDirectory,
} from '#core/attendance';
import { isInstructional, type Day } from '#core/calendar';
import { faultsOfRow } from '#core/cell-tables';
import { dayIn } from '#core/sections';
import type { AttendanceImportReply, ImportAttendanceRequest, ImportedAttendanceReply } from '#contract/attendance';
import { cellFaultSentences } from '#contract/cell-tables';
import { counted } from '#contract/messages';
import { CalendarRepository } from '#server/calendar';
import { planOrRefuse, type UploadedRows } from '#server/cell-tables';
import { Changes, revisionOf } from '#server/changes';
import { DistrictZone, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { EnrollmentsService } from '#server/sections';
import { AttendanceRepository, type RegisterValue } from './attendance.repository.js';
import { registerId } from './register-place.js';

/** The year of a school that a period lies in. */
interface YearOfSchool {
  readonly schoolId: number;
  readonly periodId: number;
}

interface Ground {
  readonly directory: AttendanceDirectory;
  readonly students: AttendanceImportReply['students'];
  /** By `seatKey`. */
  readonly enrollments: ReadonlyMap<string, number>;
  /** What stands on the days of the file, row by row. */
  readonly kept: readonly { readonly id: number; readonly cells: AttendanceCells }[];
  readonly values: ReadonlyMap<string, RegisterValue>;
  readonly revision: string;
}

/** Attendance from a CSV or XLSX file: looked at first, then taken as one change. */
@Injectable()
export class AttendanceImportService {
  constructor(
    private readonly transactions: Transactions,
    private readonly attendance: AttendanceRepository,
    private readonly enrollments: EnrollmentsService,
    private readonly calendars: CalendarRepository,
    private readonly zone: DistrictZone,
    private readonly changes: Changes,
  ) {}

  /** What a file would change. @throws Refusal columns-of-attendance-missing */
  async plan(year: YearOfSchool, file: UploadedRows): Promise<AttendanceImportReply> {
    const ground = await this.transactions.snapshot((queries) => this.ground(queries, year, file.rows));
    const plan = planOrRefuse(attendanceTable(ground.directory), file, ground.kept, 'columns-of-attendance-missing');
    const useful = plan.rows.filter(({ outcome }) => outcome === 'new' || outcome === 'changed');
    const registers = this.registersOf(
      ground,
      useful.map(({ cells }) => cells),
    );
    const added = [...registers.keys()].filter((id) => !ground.values.has(id)).length;
    return { ...plan, students: ground.students, revision: ground.revision, registers: added };
  }

  /** @throws Refusal set-up-changed, attendance-faulty */
  async carryOut(actor: Actor, year: YearOfSchool, request: ImportAttendanceRequest): Promise<ImportedAttendanceReply> {
    return this.transactions.run(async (queries) => {
      const ground = await this.ground(queries, year);
      if (ground.revision !== request.revision) throw new Refusal('set-up-changed', { what: 'attendance' });
      const table = attendanceTable(ground.directory);
      const { rows } = request;
      const faults = rows.flatMap((cells, at) =>
        faultsOfRow(table, cells).map(({ field, fault }) => ({
          field: `rows.${at}.${field}`,
          detail: cellFaultSentences[fault],
        })),
      );
      if (faults.length > 0) throw new Refusal('attendance-faulty', { count: faults.length }, faults);
      const registers = this.registersOf(ground, rows);
      await this.changes.make(queries, actor, {
        action: `import ${counted(registers.size, 'register')}`,
        edits: [...registers].map(([id, after]) => ({ kind: 'register', id, after })),
      });
      return { rows: rows.length, registers: registers.size };
    });
  }

  /** The registers that rows change, as they are to be: whoever no row names stays as they are, or was present. */
  private registersOf({ directory, enrollments, values }: Ground, rows: readonly AttendanceCells[]) {
    const registers = new Map<string, RegisterValue>();
    for (const cells of rows) {
      const { sectionId, studentId, day, mark } = entryOfCells(directory, cells);
      const id = registerId({ sectionId, day });
      const absences: Record<number, AbsenceKind> = { ...(registers.get(id) ?? values.get(id))?.absences };
      const enrollmentId = enrollments.get(seatKey(sectionId, studentId))!;
      if (mark === 'present') delete absences[enrollmentId];
      else absences[enrollmentId] = mark;
      registers.set(id, { absences });
    }
    return registers;
  }

  /** @param told rows of a file, of whose days what is kept is to be told */
  private async ground(
    queries: Queries,
    { schoolId, periodId }: YearOfSchool,
    told: UploadedRows['rows'] = [],
  ): Promise<Ground> {
    const {
      own,
      reply,
      directory: seats,
    } = await this.enrollments.read(queries, {
      schoolId,
      periodId,
      sectionId: null,
    });
    const { weekdays } = await this.calendars.schoolOrThrow(queries, schoolId);
    const breaks = await this.calendars.breaksOf(queries, schoolId);
    const sectionIds = reply.sections.map(({ id }) => id);
    const taken = await this.attendance.taken(queries, sectionIds, seats.year);
    const absences = await this.attendance.absences(queries, sectionIds, seats.year);
    const enrollments = new Map(own.map(({ id, sectionId, studentId }) => [seatKey(sectionId, studentId), id]));
    const values = valuesOf(taken, absences);
    const directory: AttendanceDirectory = {
      sections: seats.sections,
      students: seats.students,
      year: seats.year,
      today: await this.zone.today(queries),
      seats: new Map(
        own.map(({ sectionId, studentId, enteredOn, withdrawnOn }) => [
          seatKey(sectionId, studentId),
          { startsOn: enteredOn, endsOn: withdrawnOn ?? seats.year.endsOn },
        ]),
      ),
      isSchoolDay: (day) => isInstructional(day, weekdays, breaks),
    };
    const days = new Set(told.flatMap((cells) => cells.map((cell) => dayIn(seats.year, cell))));
    let row = 0;
    const kept = taken
      .filter(({ day }) => days.has(day))
      .flatMap(({ sectionId, day }) =>
        own
          .filter((seat) => seat.sectionId === sectionId)
          .filter((seat) => sitsOn(seat, day))
          .map(({ id, studentId }) => ({
            id: ++row,
            cells: {
              section: seats.sections.textOf(sectionId),
              student: seats.students.textOf(studentId),
              day,
              status: attendanceLetters[values.get(registerId({ sectionId, day }))?.absences[id] ?? 'present'],
            },
          })),
      );
    return { directory, enrollments, kept, values, students: reply.students, revision: revisionOf([...values]) };
  }
}

function valuesOf(
  taken: readonly { readonly sectionId: number; readonly day: Day }[],
  absences: readonly {
    readonly sectionId: number;
    readonly day: Day;
    readonly enrollmentId: number;
    readonly kind: AbsenceKind;
  }[],
): ReadonlyMap<string, RegisterValue> {
  const empty = (): { absences: Record<number, AbsenceKind> } => ({ absences: {} });
  const values = new Map(taken.map((place) => [registerId(place), empty()]));
  for (const { enrollmentId, kind, ...place } of absences) {
    const value = values.get(registerId(place));
    if (value) value.absences[enrollmentId] = kind;
  }
  return values;
}
