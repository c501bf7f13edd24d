import { cellsOfPerson, personOfCells, type PersonCells } from '#core/people';
import { usesInWords } from '#contract/messages';
import { ThingOf, type Thing } from '#server/changes';
import { Refusal, registrars, type Queries } from '#server/platform';
import { RosterRepository, type KeptPerson } from './roster.repository.js';

/** A person as the log tells of them: whose they are, by which id a roster knows them, and their cells. */
export interface PersonValue {
  readonly schoolId: number | null;
  readonly rosterId: string | null;
  readonly cells: PersonCells;
}

export function valueOfPerson(person: Omit<KeptPerson, 'id'>): PersonValue {
  return { schoolId: person.schoolId, rosterId: person.rosterId, cells: cellsOfPerson(person) };
}

/** Students and staff, by their numbers in the database. One on whom something hangs is not removed. */
@ThingOf({ kind: 'person', called: 'the person', policy: registrars })
export class PersonThing implements Thing<PersonValue> {
  constructor(private readonly roster: RosterRepository) {}

  title({ cells }: PersonValue): string {
    return nameOfCells(cells);
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, PersonValue>> {
    const found = await this.roster.byIds(queries, ids.map(Number));
    return new Map(found.map((person) => [String(person.id), valueOfPerson(person)]));
  }

  async check(queries: Queries, values: ReadonlyMap<string, PersonValue | null>): Promise<void> {
    const uses = await this.roster.usesOf(queries, removedOf(values));
    for (const { name, sections, taught, accounts, sealed } of uses.values())
      throw new Refusal('in-use', {
        what: 'The person',
        name,
        uses: usesInWords({
          counts: { section: sections + taught, 'transcript entry': sealed },
          named: accounts > 0 ? ['an account'] : [],
        }),
        instead: 'Take them out of it first.',
      });
  }

  async write(queries: Queries, values: ReadonlyMap<string, PersonValue | null>): Promise<void> {
    await this.roster.remove(queries, removedOf(values));
    await this.roster.put(
      queries,
      [...values].flatMap(([id, value]) => {
        if (!value) return [];
        const { schoolId, rosterId, cells } = value;
        return [{ ...personOfCells(cells), id: Number(id), schoolId, rosterId }];
      }),
    );
  }
}

/** "Ada Skerry". */
export function nameOfCells({ givenName, familyName }: PersonCells): string {
  return `${givenName} ${familyName}`;
}

function removedOf(values: ReadonlyMap<string, PersonValue | null>): number[] {
  return [...values].flatMap(([id, value]) => (value ? [] : [Number(id)]));
}
