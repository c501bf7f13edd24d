import type { AssignmentBody } from '#contract/calculation';
import { ThingOf, type Thing } from '#server/changes';
import type { PlaceOf, Queries } from '#server/platform';
import { AssignmentChecks } from './assignment-checks.service.js';
import { BookAccess, type BookPlace } from './book-access.service.js';
import { BooksRepository } from './books.repository.js';

/** An assignment as the log tells of it: what it says, and in whose book of which period it stands. */
export type AssignmentValue = AssignmentBody & BookPlace;

/** An assignment as changes name it: its section, its period and its number. */
export function assignmentName({ sectionId, periodId }: BookPlace, id: number): string {
  return `${sectionId}/${periodId}/${id}`;
}

/** Assignments, by their book and number. One that scores hang on is not removed. */
@ThingOf({
  kind: 'assignment',
  called: 'the assignment',
  change: 'score',
  see: 'read-grades',
  at: assignmentPlace,
})
export class AssignmentThing implements Thing<AssignmentValue> {
  constructor(
    private readonly books: BooksRepository,
    private readonly checks: AssignmentChecks,
    private readonly access: BookAccess,
  ) {}

  title({ name }: AssignmentValue): string {
    return name;
  }

  hold(queries: Queries, ids: readonly string[]): Promise<void> {
    return this.access.hold(queries, ids.map(bookOf));
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, AssignmentValue>> {
    const found = await this.books.assignmentsById(queries, ids.map(numberOf));
    return new Map(
      ids.flatMap((id) => {
        const value = found.get(numberOf(id));
        return value && assignmentName(value, numberOf(id)) === id ? [[id, value]] : [];
      }),
    );
  }

  async check(queries: Queries, values: ReadonlyMap<string, AssignmentValue | null>): Promise<void> {
    for (const [id, value] of values) if (value) await this.checks.refuseFaulty(queries, numberOf(id), value);
    await this.checks.refuseUsed(queries, removedNumbers(values));
  }

  async write(queries: Queries, values: ReadonlyMap<string, AssignmentValue | null>): Promise<void> {
    await this.books.remove(queries, removedNumbers(values));
    await this.books.put(
      queries,
      [...values].flatMap(([id, value]) => (value ? [{ ...value, id: numberOf(id) }] : [])),
    );
  }
}

function bookOf(id: string): BookPlace {
  const [sectionId, periodId] = id.split('/').map(Number);
  return { sectionId: sectionId!, periodId: periodId! };
}

/** Where an assignment stands, by what changes call it. */
export function assignmentPlace(id: string): PlaceOf {
  return { kind: 'section', id: bookOf(id).sectionId };
}

/** The numbers of those that are to go. */
export function removedNumbers(values: ReadonlyMap<string, AssignmentValue | null>): number[] {
  return [...values].flatMap(([id, value]) => (value ? [] : [numberOf(id)]));
}

/** The number in what changes call an assignment. */
function numberOf(id: string): number {
  return Number(id.split('/')[2]);
}
