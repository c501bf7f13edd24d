import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  cellsOfPerson,
  personOfCells,
  personTable,
  spokenName,
  type PersonCells,
  type PersonField,
} from '#core/people';
import type { CellTable } from '#core/cell-tables';
import type { SavedRows } from '#contract/cell-tables';
import type { PeopleImportReply, PeopleReply, SavePeopleRequest } from '#contract/people';
import { concernedBy, planOrRefuse, savedRows, saveRows, type UploadedRows } from '#server/cell-tables';
import { Changes, revisionOf } from '#server/changes';
import { DistrictZone, Transactions, type Actor, type Queries } from '#server/platform';
import { valueOfPerson } from './person.thing.js';
import { RosterRepository } from './roster.repository.js';

/** The people of a school, made and mended by hand or from a file. */
@Injectable()
export class PeopleService {
  constructor(
    private readonly transactions: Transactions,
    private readonly roster: RosterRepository,
    private readonly changes: Changes,
    private readonly zone: DistrictZone,
  ) {}

  ofSchool(schoolId: number): Promise<PeopleReply> {
    return this.transactions.snapshot((queries) => this.read(queries, schoolId));
  }

  /** The cells of the people, as a file has them. */
  async cellsOf(schoolId: number): Promise<{ table: CellTable<PersonField>; rows: PersonCells[] }> {
    const own = await this.roster.ofSchool(this.transactions.reading, schoolId);
    return { table: personTable(await this.zone.today(this.transactions.reading)), rows: own.map(cellsOfPerson) };
  }

  /** Changes, adds and removes people: all of it, or nothing. */
  async save(actor: Actor, schoolId: number, request: SavePeopleRequest): Promise<PeopleReply & SavedRows> {
    return this.transactions.run(async (queries) => {
      const own = await this.roster.ofSchool(queries, schoolId);
      const byId = new Map(own.map((person) => [person.id, person]));
      const made = () => ({ schoolId, sourcedId: randomUUID(), isMadeHere: true });
      const ids = await saveRows(
        queries,
        { changes: this.changes, actor },
        {
          table: personTable(await this.zone.today(queries)),
          kind: 'person',
          numberedBy: 'people',
          faulty: 'people-faulty',
          own,
          // A student's number is theirs alone in the whole district; the staff may be numbered alike.
          taken: await this.roster.numbersOfOthers(queries, [...concernedBy(request)]),
          sharing: 'a number that no other student has',
          nameOf: (id) => spokenName(byId.get(id)!),
          titleOf: spokenName,
          valueOf: (cells, id) => valueOfPerson({ ...(id === null ? made() : byId.get(id)!), ...personOfCells(cells) }),
        },
        request,
      );
      const reply = await this.read(queries, schoolId);
      return { ...reply, ...savedRows(ids, reply.people) };
    });
  }

  async planImport(schoolId: number, file: UploadedRows): Promise<PeopleImportReply> {
    const own = await this.roster.ofSchool(this.transactions.reading, schoolId);
    const existing = own.map((person) => ({ id: person.id, cells: cellsOfPerson(person) }));
    const today = await this.zone.today(this.transactions.reading);
    return planOrRefuse(personTable(today), file, existing, 'columns-of-names-missing');
  }

  async read(queries: Queries, schoolId: number): Promise<PeopleReply> {
    const own = await this.roster.ofSchool(queries, schoolId);
    const sections = await this.roster.sectionsOf(
      queries,
      own.map(({ id }) => id),
    );
    const leaving = own.filter(({ leftOn }) => leftOn !== null).map(({ id }) => id);
    const seats = await this.roster.seatsAfterLeaving(queries, leaving);
    return {
      today: await this.zone.today(queries),
      people: own.map((person) => ({
        id: person.id,
        revision: revisionOf(valueOfPerson(person)),
        cells: cellsOfPerson(person),
        isOfRoster: !person.isMadeHere,
        sections: sections.get(person.id) ?? 0,
        seatsAfterLeaving: seats.get(person.id) ?? 0,
      })),
    };
  }
}
