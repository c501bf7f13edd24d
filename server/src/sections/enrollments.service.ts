import { Injectable } from '@nestjs/common';
import {
  cellsOfEnrollment,
  enrollmentOfCells,
  enrollmentTable,
  type EnrollmentCells,
  type EnrollmentDirectory,
} from '#core/sections';
import {
  enrollmentDirectoryOf,
  type EnrollmentsImportReply,
  type EnrollmentsReply,
  type SavedEnrollmentsReply,
  type SaveEnrollmentsRequest,
} from '#contract/sections';
import { PeriodsRepository } from '#server/calendar';
import { othersOf, planOrRefuse, savedRows, saveRows, type UploadedRows } from '#server/cell-tables';
import { Changes, revisionOf } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { valueOfEnrollment } from './enrollment.thing.js';
import { EnrollmentsRepository, type KeptEnrollment } from './enrollments.repository.js';
import { NamedThingsRepository } from './named-things.repository.js';
import { OwnSectionsRepository, type KeptSection } from './own-sections.repository.js';

/** Which seats are meant: all of the year that a period lies in, or those of one section. */
export interface Seats {
  readonly schoolId: number;
  readonly periodId: number;
  readonly sectionId: number | null;
}

/** Who sits in the sections of a year, by hand or from a file. */
@Injectable()
export class EnrollmentsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly enrollments: EnrollmentsRepository,
    private readonly sections: OwnSectionsRepository,
    private readonly things: NamedThingsRepository,
    private readonly periods: PeriodsRepository,
    private readonly changes: Changes,
  ) {}

  of(seats: Seats): Promise<EnrollmentsReply> {
    return this.transactions.snapshot(async (queries) => (await this.read(queries, seats)).reply);
  }

  async cellsOf(seats: Seats): Promise<{ directory: EnrollmentDirectory; rows: EnrollmentCells[] }> {
    const { reply, directory } = await this.transactions.snapshot((queries) => this.read(queries, seats));
    return { directory, rows: reply.enrollments.map(({ cells }) => cells) };
  }

  /** Changes, adds and removes enrollments: all of it, or nothing. */
  async save(actor: Actor, seats: Seats, request: SaveEnrollmentsRequest): Promise<SavedEnrollmentsReply> {
    return this.transactions.run(async (queries) => {
      const { own, reply, directory } = await this.read(queries, seats);
      const table = enrollmentTable(directory);
      const byId = new Map(own.map((enrollment) => [enrollment.id, enrollment.student]));
      const ids = await saveRows(
        queries,
        { changes: this.changes, actor },
        {
          table,
          kind: 'enrollment',
          numberedBy: 'enrollments',
          faulty: 'enrollments-faulty',
          own,
          taken: othersOf(reply.enrollments, request).map(({ cells }) => table.unique.keyOf(cells)),
          sharing: 'a student who does not sit in the section yet',
          nameOf: (id) => `the enrollment of ${byId.get(id)}`,
          titleOf: ({ student, section }) => `${student} to ${section}`,
          valueOf: (cells) => enrollmentOfCells(directory, cells),
        },
        request,
      );
      const after = await this.read(queries, seats);
      return { ...after.reply, ...savedRows(ids, after.reply.enrollments) };
    });
  }

  async planImport(seats: Seats, file: UploadedRows): Promise<EnrollmentsImportReply> {
    const { reply, directory } = await this.transactions.snapshot((queries) => this.read(queries, seats));
    return planOrRefuse(enrollmentTable(directory), file, reply.enrollments, 'columns-of-enrollments-missing');
  }

  /** The seats with what their cells name. */
  async read(
    queries: Queries,
    { schoolId, periodId, sectionId }: Seats,
  ): Promise<{ own: KeptEnrollment[]; reply: EnrollmentsReply; directory: EnrollmentDirectory }> {
    const { year, periods } = await this.periods.yearOfOrThrow(queries, schoolId, periodId);
    const kept = await this.sections.ofPeriods(
      queries,
      periods.map(({ id }) => id),
    );
    const own = sectionId === null ? kept : kept.filter(({ id }) => id === sectionId);
    if (sectionId !== null && own.length === 0) throw new Refusal('not-found', { what: 'section', id: sectionId });
    const places = new Map(own.map(({ id }, at) => [id, at]));
    const seated = (await this.enrollments.inSections(queries, [...places.keys()])).toSorted(
      (a, b) => places.get(a.sectionId)! - places.get(b.sectionId)!,
    );
    const students = await this.things.students(queries, schoolId, [
      ...new Set(seated.map(({ studentId }) => studentId)),
    ]);
    const periodOf = (section: KeptSection) => periods.find(({ id }) => id === section.periodId)!;
    const sections = own.map((section) => ({
      id: section.id,
      names: [section.name, `${section.courseCode} ${section.number}`],
      apart: `${section.name}, ${periodOf(section).name}`,
      startsOn: section.startsOn ?? periodOf(section).startsOn,
      endsOn: section.endsOn ?? periodOf(section).endsOn,
    }));
    const days = { startsOn: year.startsOn, endsOn: year.endsOn };
    const directory = enrollmentDirectoryOf({ sections, students, year: days });
    const enrollments = seated.map((enrollment) => ({
      id: enrollment.id,
      revision: revisionOf(valueOfEnrollment(enrollment)),
      cells: cellsOfEnrollment(directory, enrollment),
      sectionId: enrollment.sectionId,
      isOfRoster: enrollment.isOfRoster,
    }));
    return { own: seated, directory, reply: { yearId: year.id, year: days, sections, students, enrollments } };
  }
}
