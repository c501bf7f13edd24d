import { ThingOf, type Thing } from '#server/changes';
import type { PlaceOf, Queries } from '#server/platform';
import { nameOfCells, PersonThing } from '../person.thing.js';
import { MergedPeopleRepository, type MergedRecord } from './merged-people.repository.js';

/** Records that were merged into others, by the numbers that they had. */
@ThingOf({ kind: 'merged-person', called: 'the merged record', change: 'change-people', see: 'read-people' })
export class MergedPeopleThing implements Thing<MergedRecord> {
  constructor(
    private readonly merged: MergedPeopleRepository,
    private readonly people: PersonThing,
  ) {}

  within({ keptId, gone: { schoolId } }: MergedRecord): (PlaceOf | null)[] {
    return [{ kind: 'person', id: keptId }, schoolId === null ? null : { kind: 'school', id: schoolId }];
  }

  title({ gone }: MergedRecord): string {
    return nameOfCells(gone.cells);
  }

  /** Numbers come free by a merge, and are taken again when it is undone. */
  hold(queries: Queries): Promise<void> {
    return this.people.hold(queries);
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, MergedRecord>> {
    const found = await this.merged.byGoneIds(queries, ids.map(Number));
    return new Map([...found].map(([id, record]) => [String(id), record]));
  }

  async check(): Promise<void> {
    // What stands in the way of a merge was looked at before; taken apart they come back as they were.
  }

  async write(queries: Queries, values: ReadonlyMap<string, MergedRecord | null>): Promise<void> {
    for (const [id, value] of values) {
      if (value) {
        await this.merged.merge(queries, Number(id), value);
        continue;
      }
      const before = (await this.read(queries, [id])).get(id)!;
      await this.people.check(queries, new Map([[id, before.gone]]));
      await this.people.write(queries, new Map([[id, before.gone]]));
      await this.merged.part(queries, Number(id), before);
    }
  }
}
