import { ThingOf, type Thing } from '#server/changes';
import { Refusal, type PlaceOf, type Queries } from '#server/platform';
import { EnrollmentsRepository } from '../enrollments.repository.js';
import { MovedSeatsRepository, type MovedSeat } from './moved-seats.repository.js';

/** Seats that students moved to, by their numbers. */
@ThingOf({ kind: 'moved-seat', called: 'the move', change: 'change-people', see: 'read-people' })
export class MovedSeatThing implements Thing<MovedSeat> {
  constructor(
    private readonly moves: MovedSeatsRepository,
    private readonly enrollments: EnrollmentsRepository,
  ) {}

  within({ fromId, sectionId }: MovedSeat): PlaceOf[] {
    return [
      { kind: 'enrollment', id: fromId },
      { kind: 'section', id: sectionId },
    ];
  }

  async names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const found = await this.enrollments.byIds(queries, ids.map(Number));
    return new Map(found.map(({ id, student }) => [String(id), student]));
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, MovedSeat>> {
    const found = await this.moves.byToIds(queries, ids.map(Number));
    return new Map([...found].map(([id, seat]) => [String(id), seat]));
  }

  /** @throws Refusal move-built-on where the new seat has more than it came with */
  async check(queries: Queries, values: ReadonlyMap<string, MovedSeat | null>): Promise<void> {
    for (const [id, seat] of await this.read(queries, [...values.keys()]))
      if (values.get(id) === null && (await this.moves.hasMore(queries, Number(id), seat)))
        throw new Refusal('move-built-on', {
          student: (await this.names(queries, [id])).get(id) ?? 'The student',
        });
  }

  async write(queries: Queries, values: ReadonlyMap<string, MovedSeat | null>): Promise<void> {
    const before = await this.read(queries, [...values.keys()]);
    for (const [id, seat] of values)
      if (seat) await this.moves.move(queries, Number(id), seat);
      else await this.moves.moveBack(queries, Number(id), before.get(id)!);
  }
}
