import { foldCell } from '#core/cell-tables';
import { cellsOfPerson, personOfCells, numberAlone, spokenName, type PersonCells } from '#core/people';
import { usesInWords } from '#contract/messages';
import { ThingOf, type Thing } from '#server/changes';
import { countUses, Refusal, type PlaceOf, type Queries } from '#server/platform';
import { personUses, RosterRepository, type KeptPerson } from './roster.repository.js';

/** A person as the log tells of them: whose they are, by which id others know them, and their cells. */
export interface PersonValue {
  readonly schoolId: number | null;
  readonly sourcedId: string;
  readonly isMadeHere: boolean;
  readonly cells: PersonCells;
}

export function valueOfPerson(person: Omit<KeptPerson, 'id'>): PersonValue {
  const { schoolId, sourcedId, isMadeHere } = person;
  return { schoolId, sourcedId, isMadeHere, cells: cellsOfPerson(person) };
}

/** Students and staff, by their numbers in the database. One on whom something hangs is not removed. */
@ThingOf({ kind: 'person', called: 'the person', change: 'change-people', see: 'read-people' })
export class PersonThing implements Thing<PersonValue> {
  constructor(private readonly roster: RosterRepository) {}

  within({ schoolId }: PersonValue): [PlaceOf | null] {
    return [schoolId === null ? null : { kind: 'school', id: schoolId }];
  }

  title({ cells }: PersonValue): string {
    return spokenName(cells);
  }

  /** So that no two get one number at the same moment. */
  hold(queries: Queries): Promise<void> {
    return this.roster.holdNumbers(queries);
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, PersonValue>> {
    const found = await this.roster.byIds(queries, ids.map(Number));
    return new Map(found.map((person) => [String(person.id), valueOfPerson(person)]));
  }

  /** Whoever something hangs on is not removed, and stays a student or one of the staff. */
  async check(queries: Queries, values: ReadonlyMap<string, PersonValue | null>): Promise<void> {
    const before = await this.read(queries, [...values.keys()]);
    await this.refuseNumbersOfTwo(queries, values, before);
    const concerned = [...before].filter(([id, { cells }]) => values.get(id)?.cells.kind !== cells.kind);
    const uses = await countUses(
      queries,
      personUses,
      concerned.map(([id]) => Number(id)),
    );
    for (const [id, counts] of uses)
      throw new Refusal('in-use', {
        what: 'The person',
        name: spokenName(before.get(String(id))!.cells),
        uses: usesInWords({ counts }),
        instead: 'Take them out of it first.',
      });
  }

  /** A number that somebody gets is nobody else's, of an undo as of a save; what a roster brought twice may stay. */
  private async refuseNumbersOfTwo(
    queries: Queries,
    values: ReadonlyMap<string, PersonValue | null>,
    before: ReadonlyMap<string, PersonValue>,
  ): Promise<void> {
    const others = await this.roster.numbersOfOthers(queries, [...values.keys()].map(Number));
    const taken = new Set(others.map(foldCell));
    for (const [id, value] of values) {
      const number = value ? foldCell(numberAlone(value.cells)) : '';
      const had = before.has(id) ? foldCell(numberAlone(before.get(id)!.cells)) : '';
      if (number !== '' && number !== had && taken.has(number))
        throw new Refusal('number-taken', { name: spokenName(value!.cells), number: value!.cells.number });
      taken.add(number);
    }
  }

  async write(queries: Queries, values: ReadonlyMap<string, PersonValue | null>): Promise<void> {
    await this.roster.remove(queries, removedOf(values));
    await this.roster.put(
      queries,
      [...values].flatMap(([id, value]) => {
        if (!value) return [];
        const { cells, ...own } = value;
        return [{ ...personOfCells(cells), ...own, id: Number(id) }];
      }),
    );
  }
}

function removedOf(values: ReadonlyMap<string, PersonValue | null>): number[] {
  return [...values].flatMap(([id, value]) => (value ? [] : [Number(id)]));
}
