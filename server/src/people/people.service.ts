import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { cellsOfPerson, personOfCells, personTable, type PersonCells } from '#core/people';
import type { SavedRows } from '#contract/cell-tables';
import type { PeopleImportReply, PeopleReply, SavePeopleRequest } from '#contract/people';
import {
  actionOfRows,
  planOrRefuse,
  refuseUnknownRows,
  rowFaults,
  savedRows,
  idsOfChanges,
  type UploadedRows,
} from '#server/cell-tables';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { nameOfCells, valueOfPerson } from './person.thing.js';
import { RosterRepository, type KeptPerson } from './roster.repository.js';

/** The people of a school, made and mended by hand or from a file. */
@Injectable()
export class PeopleService {
  constructor(
    private readonly transactions: Transactions,
    private readonly roster: RosterRepository,
    private readonly changes: Changes,
  ) {}

  ofSchool(schoolId: number): Promise<PeopleReply> {
    return this.transactions.snapshot((queries) => this.read(queries, schoolId));
  }

  /** The cells of the people, as a file has them. */
  async cellsOf(schoolId: number): Promise<PersonCells[]> {
    return (await this.roster.ofSchool(this.transactions.reading, schoolId)).map(cellsOfPerson);
  }

  /** Changes, adds and removes people: all of it, or nothing. */
  async save(
    actor: Actor,
    schoolId: number,
    { changes, removed }: SavePeopleRequest,
  ): Promise<PeopleReply & SavedRows> {
    return this.transactions.run(async (queries) => {
      const own = await this.roster.ofSchool(queries, schoolId);
      refuseUnknownRows('person', own, changes, removed);
      await this.refuseFaulty(queries, changes, removed);
      const byId = new Map(own.map((person) => [person.id, person]));
      const given = await nextIds(queries, 'people', changes.filter(({ id }) => id === null).length);
      const ids = idsOfChanges(changes, given);
      const edits = changes.map(({ id, revision, cells }, at): Edit => {
        const own = id === null ? { schoolId, sourcedId: randomUUID(), isMadeHere: true } : byId.get(id)!;
        const after = valueOfPerson({ ...own, ...personOfCells(cells) });
        return id === null
          ? { kind: 'person', id: String(ids[at]), after }
          : { kind: 'person', id: String(id), expected: revision, after };
      });
      await this.changes.make(queries, actor, {
        action: actionOfRows(
          'person',
          { changes, removed },
          (id) => spokenName(byId.get(id)!),
          ({ cells }) => nameOfCells(cells),
        ),
        edits: [...removed.map((id) => ({ kind: 'person', id: String(id), after: null })), ...edits],
      });
      const reply = await this.read(queries, schoolId);
      return { ...reply, ...savedRows(ids, reply.people) };
    });
  }

  /** A student's number is theirs alone in the whole district; the staff may be numbered alike. */
  private async refuseFaulty(
    queries: Queries,
    changes: SavePeopleRequest['changes'],
    removed: readonly number[],
  ): Promise<void> {
    const ids = [...removed, ...changes.flatMap(({ id }) => id ?? [])];
    const taken = await this.roster.numbersOfOthers(queries, ids);
    const faults = rowFaults(personTable, changes, taken, 'a number that no other student has');
    if (faults.length > 0) throw new Refusal('people-faulty', { count: faults.length }, faults);
  }

  async planImport(schoolId: number, file: UploadedRows): Promise<PeopleImportReply> {
    const own = await this.roster.ofSchool(this.transactions.reading, schoolId);
    const existing = own.map((person) => ({ id: person.id, cells: cellsOfPerson(person) }));
    return planOrRefuse(personTable, file, existing, 'columns-of-names-missing');
  }

  private async read(queries: Queries, schoolId: number): Promise<PeopleReply> {
    const own = await this.roster.ofSchool(queries, schoolId);
    const sections = await this.roster.sectionsOf(
      queries,
      own.map(({ id }) => id),
    );
    return {
      people: own.map((person) => ({
        id: person.id,
        revision: revisionOf(valueOfPerson(person)),
        cells: cellsOfPerson(person),
        isOfRoster: !person.isMadeHere,
        sections: sections.get(person.id) ?? 0,
      })),
    };
  }
}

function spokenName({ givenName, familyName }: KeptPerson): string {
  return `${givenName} ${familyName}`;
}
