import { spokenName } from '#core/people';
import { ThingOf, type Thing } from '#server/changes';
import type { PlaceOf, Queries } from '#server/platform';
import { RosterRepository } from '../roster.repository.js';
import { MergedPeopleRepository, type MergedRecord } from './merged-people.repository.js';

/** What hung on records that were merged into others, by the numbers that they had. The records themselves are people. */
@ThingOf({ kind: 'merged-person', called: 'what was merged', change: 'change-people', see: 'read-people' })
export class MergedPeopleThing implements Thing<MergedRecord> {
  constructor(
    private readonly merged: MergedPeopleRepository,
    private readonly roster: RosterRepository,
  ) {}

  within({ keptId }: MergedRecord): [PlaceOf] {
    return [{ kind: 'person', id: keptId }];
  }

  /** By whose it became. */
  async names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const found = await this.merged.byGoneIds(queries, ids.map(Number));
    const people = await this.roster.byIds(
      queries,
      [...found.values()].map(({ keptId }) => keptId),
    );
    const nameOf = new Map(people.map((person) => [person.id, spokenName(person)]));
    return new Map(
      [...found].flatMap(([id, { keptId }]) => (nameOf.has(keptId) ? [[String(id), nameOf.get(keptId)!]] : [])),
    );
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, MergedRecord>> {
    const found = await this.merged.byGoneIds(queries, ids.map(Number));
    return new Map([...found].map(([id, record]) => [String(id), record]));
  }

  async check(): Promise<void> {
    // What stands in the way was looked at before; the people and seats of the same change are checked as such.
  }

  async write(queries: Queries, values: ReadonlyMap<string, MergedRecord | null>): Promise<void> {
    const before = await this.read(queries, [...values.keys()]);
    for (const [id, record] of values)
      if (record) await this.merged.merge(queries, Number(id), record);
      else await this.merged.part(queries, Number(id), before.get(id)!);
  }
}
