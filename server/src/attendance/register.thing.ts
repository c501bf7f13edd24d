import { sitsOn } from '#core/attendance';
import { ThingOf, type Thing } from '#server/changes';
import { Clock, Refusal, type Actor, type Queries } from '#server/platform';
import { AttendanceRepository, type RegisterValue } from './attendance.repository.js';
import { registerPlaceOf } from './register-place.js';

/** The attendance of a section on a day, by "section/day". */
@ThingOf({
  kind: 'register',
  called: 'the attendance',
  change: 'post-grades',
  see: 'read-grades',
  at: (id) => ({ kind: 'section', id: registerPlaceOf(id).sectionId }),
})
export class RegisterThing implements Thing<RegisterValue> {
  constructor(
    private readonly attendance: AttendanceRepository,
    private readonly clock: Clock,
  ) {}

  names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    return this.attendance.namesOf(queries, ids);
  }

  hold(queries: Queries, ids: readonly string[]): Promise<void> {
    return this.attendance.hold(queries, sectionsOf(ids));
  }

  read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, RegisterValue>> {
    return this.attendance.values(queries, ids);
  }

  /** Whoever is absent sits in the section on that day. */
  async check(queries: Queries, values: ReadonlyMap<string, RegisterValue | null>): Promise<void> {
    const seats = new Map(
      (await this.attendance.seats(queries, sectionsOf([...values.keys()]))).map((seat) => [seat.enrollmentId, seat]),
    );
    for (const [id, value] of values) {
      const { sectionId, day } = registerPlaceOf(id);
      for (const enrollmentId of Object.keys(value?.absences ?? {}).map(Number)) {
        const seat = seats.get(enrollmentId);
        const isThere =
          seat?.sectionId === sectionId && sitsOn({ enteredOn: seat.startsOn, withdrawnOn: seat.endsOn }, day);
        if (!isThere) throw new Refusal('not-found', { what: 'student of the section on that day', id: enrollmentId });
      }
    }
  }

  write(queries: Queries, values: ReadonlyMap<string, RegisterValue | null>, { personId }: Actor): Promise<void> {
    return this.attendance.write(queries, values, { personId, at: this.clock.now() });
  }
}

const sectionsOf = (ids: readonly string[]) => [...new Set(ids.map((id) => registerPlaceOf(id).sectionId))];
