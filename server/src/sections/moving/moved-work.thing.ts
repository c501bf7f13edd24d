import { ThingOf, type Thing } from '#server/changes';
import { Refusal, type PlaceOf, type Queries } from '#server/platform';
import { EnrollmentThing } from '../enrollment.thing.js';
import { MovedWorkRepository, type MovedWork } from './moved-work.repository.js';

/** Grades and scores that went along with students, by the seats that they came to; the seats are enrollments like any. */
@ThingOf({ kind: 'moved-work', called: 'what went along', change: 'change-people', see: 'read-people' })
export class MovedWorkThing implements Thing<MovedWork> {
  constructor(
    private readonly moves: MovedWorkRepository,
    private readonly enrollments: EnrollmentThing,
  ) {}

  within({ fromId }: MovedWork): [PlaceOf] {
    return [{ kind: 'enrollment', id: fromId }];
  }

  names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    return this.enrollments.names(queries, ids);
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, MovedWork>> {
    const found = await this.moves.byToIds(queries, ids.map(Number));
    return new Map([...found].map(([id, work]) => [String(id), work]));
  }

  /** @throws Refusal move-built-on where what went along was changed since, or its period sealed */
  async check(queries: Queries, values: ReadonlyMap<string, MovedWork | null>): Promise<void> {
    if (await this.moves.isBuiltOn(queries, await this.goingBack(queries, values))) throw new Refusal('move-built-on');
  }

  async write(queries: Queries, values: ReadonlyMap<string, MovedWork | null>): Promise<void> {
    await this.moves.moveBack(queries, await this.goingBack(queries, values));
    await this.moves.move(queries, new Map([...values].flatMap(([id, work]) => (work ? [[Number(id), work]] : []))));
  }

  private goingBack(queries: Queries, values: ReadonlyMap<string, MovedWork | null>) {
    return this.moves.byToIds(
      queries,
      [...values].flatMap(([id, work]) => (work ? [] : [Number(id)])),
    );
  }
}
