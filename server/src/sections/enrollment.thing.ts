import type { OwnEnrollment } from '#core/sections';
import { usesInWords } from '#contract/messages';
import { ThingOf, type Thing } from '#server/changes';
import { countUses, Refusal, type PlaceOf, type Queries } from '#server/platform';
import { enrollmentUses, EnrollmentsRepository } from './enrollments.repository.js';

export function valueOfEnrollment(enrollment: OwnEnrollment): OwnEnrollment {
  const { sectionId, studentId, enteredOn, withdrawnOn } = enrollment;
  return { sectionId, studentId, enteredOn, withdrawnOn };
}

/** Seats of students in sections, by their numbers. One that has grades or scores is not removed, and stays whose and where it is. */
@ThingOf({ kind: 'enrollment', called: 'the enrollment', change: 'change-people', see: 'read-people' })
export class EnrollmentThing implements Thing<OwnEnrollment> {
  constructor(private readonly enrollments: EnrollmentsRepository) {}

  within({ sectionId }: OwnEnrollment): [PlaceOf] {
    return [{ kind: 'section', id: sectionId }];
  }

  async names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const found = await this.enrollments.byIds(queries, ids.map(Number));
    return new Map(found.map(({ id, student }) => [String(id), student]));
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, OwnEnrollment>> {
    const found = await this.enrollments.byIds(queries, ids.map(Number));
    return new Map(found.map((enrollment) => [String(enrollment.id), valueOfEnrollment(enrollment)]));
  }

  /** @throws Refusal in-use, enrolled-already, not-found where somebody is no student */
  async check(queries: Queries, values: ReadonlyMap<string, OwnEnrollment | null>): Promise<void> {
    const before = await this.enrollments.byIds(queries, [...values.keys()].map(Number));
    const concerned = before.filter(({ id, sectionId, studentId }) => {
      const after = values.get(String(id));
      return !after || after.sectionId !== sectionId || after.studentId !== studentId;
    });
    const uses = await countUses(
      queries,
      enrollmentUses,
      concerned.map(({ id }) => id),
    );
    for (const { id, student } of concerned)
      if (uses.has(id))
        throw new Refusal('in-use', {
          what: 'The enrollment',
          name: `The enrollment of ${student}`,
          uses: usesInWords({ counts: uses.get(id)! }),
          instead: 'Give it a day of withdrawal instead.',
        });
    const { removed, kept } = partsOf(values);
    const changed = [...removed, ...kept.map(({ id }) => id)];
    const taken = await this.enrollments.takenBeside(queries, kept, changed);
    if (taken) throw new Refusal('enrolled-already', taken);
    const students = [...new Set(kept.map(({ studentId }) => studentId))];
    const stranger = await this.enrollments.noStudent(queries, students);
    if (stranger !== undefined) throw new Refusal('not-found', { what: 'student', id: stranger });
  }

  async write(queries: Queries, values: ReadonlyMap<string, OwnEnrollment | null>): Promise<void> {
    const { removed, kept } = partsOf(values);
    await this.enrollments.remove(queries, removed);
    await this.enrollments.put(queries, kept);
  }
}

function partsOf(values: ReadonlyMap<string, OwnEnrollment | null>) {
  const all = [...values].map(([id, value]) => [Number(id), value] as const);
  return {
    removed: all.flatMap(([id, value]) => (value ? [] : [id])),
    kept: all.flatMap(([id, value]) => (value ? [{ ...value, id }] : [])),
  };
}
