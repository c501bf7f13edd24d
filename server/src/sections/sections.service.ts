import { Injectable } from '@nestjs/common';
import { cellsOfSection, sectionOfCells, sectionTable, type SectionCells, type SectionDirectory } from '#core/sections';
import {
  sectionDirectoryOf,
  type SavedSectionsReply,
  type SaveSectionsRequest,
  type SectionsImportReply,
  type SectionsReply,
} from '#contract/sections';
import { PeriodsRepository } from '#server/calendar';
import { othersOf, planOrRefuse, savedRows, saveRows, type UploadedRows } from '#server/cell-tables';
import { Changes, revisionOf } from '#server/changes';
import { Transactions, type Actor, type Queries } from '#server/platform';
import { NamedThingsRepository } from './named-things.repository.js';
import { OwnSectionsRepository, type KeptSection } from './own-sections.repository.js';
import { valueOfSection } from './section.thing.js';

/** The sections of a year, made and mended by hand or from a file. */
@Injectable()
export class SectionsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly sections: OwnSectionsRepository,
    private readonly things: NamedThingsRepository,
    private readonly periods: PeriodsRepository,
    private readonly changes: Changes,
  ) {}

  /** Of the year that a period lies in. */
  ofYear(schoolId: number, periodId: number): Promise<SectionsReply> {
    return this.transactions.snapshot(async (queries) => (await this.read(queries, schoolId, periodId)).reply);
  }

  async cellsOf(schoolId: number, periodId: number): Promise<{ directory: SectionDirectory; rows: SectionCells[] }> {
    const { reply, directory } = await this.transactions.snapshot((queries) => this.read(queries, schoolId, periodId));
    return { directory, rows: reply.sections.map(({ cells }) => cells) };
  }

  /** Changes, adds and removes sections: all of it, or nothing. */
  async save(
    actor: Actor,
    schoolId: number,
    periodId: number,
    request: SaveSectionsRequest,
  ): Promise<SavedSectionsReply> {
    return this.transactions.run(async (queries) => {
      const { own, reply, directory } = await this.read(queries, schoolId, periodId);
      const table = sectionTable(directory);
      const ids = await saveRows(
        queries,
        { changes: this.changes, actor },
        {
          table,
          kind: 'section',
          numberedBy: 'sections',
          faulty: 'sections-faulty',
          own,
          taken: othersOf(reply.sections, request).map(({ cells }) => table.unique.keyOf(cells)),
          sharing: 'a number that no other section of the course has',
          nameOf: (id) => own.find((section) => section.id === id)!.name,
          titleOf: ({ course, number }) => `${course} ${number}`,
          valueOf: (cells) => sectionOfCells(directory, cells),
        },
        request,
      );
      const after = await this.read(queries, schoolId, periodId);
      return { ...after.reply, ...savedRows(ids, after.reply.sections) };
    });
  }

  async planImport(schoolId: number, periodId: number, file: UploadedRows): Promise<SectionsImportReply> {
    const { reply, directory } = await this.transactions.snapshot((queries) => this.read(queries, schoolId, periodId));
    return planOrRefuse(sectionTable(directory), file, reply.sections, 'columns-of-sections-missing');
  }

  private async read(
    queries: Queries,
    schoolId: number,
    periodId: number,
  ): Promise<{ own: KeptSection[]; reply: SectionsReply; directory: SectionDirectory }> {
    const { year, periods: inYear } = await this.periods.yearOfOrThrow(queries, schoolId, periodId);
    const periods = inYear.map(({ id, name, startsOn, endsOn }) => ({
      id,
      names: [name],
      apart: '',
      startsOn,
      endsOn,
    }));
    const own = await this.sections.ofPeriods(
      queries,
      periods.map(({ id }) => id),
    );
    const courses = await this.things.courses(queries, schoolId);
    const teaching = own.flatMap(({ teacherId, coTeacherIds }) => [teacherId, ...coTeacherIds]);
    const staff = await this.things.staff(queries, schoolId, [...new Set(teaching)]);
    const directory = sectionDirectoryOf({ courses, staff, periods, yearId: year.id });
    const students = await this.sections.studentsIn(
      queries,
      own.map(({ id }) => id),
    );
    const sections = own.map((section) => ({
      id: section.id,
      revision: revisionOf(valueOfSection(section)),
      cells: cellsOfSection(directory, section),
      name: section.name,
      students: 0,
      staying: 0,
      ...students.get(section.id),
      isOfRoster: section.isOfRoster,
    }));
    return { own, directory, reply: { yearId: year.id, courses, staff, periods, sections } };
  }
}
