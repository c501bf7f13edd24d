import { readScore, type ScoreFlag } from '#core/calculation';
import { decimalOrThrow } from '#core/numbers';
import { scoreFaultSentence } from '#contract/calculation';
import { ThingOf, type Thing } from '#server/changes';
import { Refusal, type FieldFault, type Queries } from '#server/platform';
import { BookAccess, type BookPlace } from './book-access.service.js';
import { BooksRepository } from './books.repository.js';

/** What a student has for an assignment; there is none where neither is set. */
export interface ScoreValue {
  readonly points: string | null;
  readonly flag: ScoreFlag | null;
}

/** Scores, by "assignment/enrollment". */
@ThingOf({
  kind: 'score',
  called: 'the score',
  change: 'score',
  see: 'read-grades',
  at: (id) => ({ kind: 'enrollment', id: enrollmentOf(id) }),
})
export class ScoreThing implements Thing<ScoreValue> {
  constructor(
    private readonly books: BooksRepository,
    private readonly access: BookAccess,
  ) {}

  names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    return this.books.namesOfScores(
      queries,
      ids.map((id) => ({ assignmentId: assignmentOf(id), enrollmentId: enrollmentOf(id) })),
    );
  }

  async hold(queries: Queries, ids: readonly string[]): Promise<void> {
    await this.access.hold(queries, (await this.booksOf(queries, ids)) ?? []);
  }

  /** The books of the assignments; undefined where one of these is gone. */
  private async booksOf(queries: Queries, ids: readonly string[]): Promise<BookPlace[] | undefined> {
    const numbers = [...new Set(ids.map(assignmentOf))];
    const books = await this.books.placesOf(queries, numbers);
    return numbers.every((number) => books.has(number)) ? [...books.values()] : undefined;
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, ScoreValue>> {
    const wanted = new Set(ids);
    const scores = await this.books.scoresOf(queries, [...new Set(ids.map(assignmentOf))]);
    return new Map(
      scores.flatMap(({ assignmentId, enrollmentId, points, flag }) => {
        const id = `${assignmentId}/${enrollmentId}`;
        return wanted.has(id) && (points ?? flag) !== null ? [[id, { points, flag }]] : [];
      }),
    );
  }

  /** Every score is one that its assignment can have. */
  async check(queries: Queries, values: ReadonlyMap<string, ScoreValue | null>): Promise<void> {
    const assignments = await this.books.assignmentsById(queries, [...new Set([...values.keys()].map(assignmentOf))]);
    const faults = [...values].flatMap(([field, value]): FieldFault[] => {
      const assignment = assignments.get(assignmentOf(field));
      if (!assignment) return [{ field, detail: 'an assignment that there is' }];
      const { name, possible, isExtra, givenTo } = assignment;
      if (value && givenTo && !givenTo.includes(enrollmentOf(field)))
        return [{ field, detail: `a student who was given ${name}` }];
      const entry = readScore(value?.points ?? '', { possible: decimalOrThrow(possible), isExtra });
      return entry.kind === 'fault' ? [{ field, detail: scoreFaultSentence(entry.code, possible) }] : [];
    });
    if (faults.length > 0) throw new Refusal('scores-faulty', { count: faults.length }, faults);
  }

  /** A score that goes leaves its row behind, so that its version goes on rising. */
  write(queries: Queries, values: ReadonlyMap<string, ScoreValue | null>): Promise<void> {
    return this.books.writeScores(
      queries,
      [...values].map(([id, value]) => ({
        assignmentId: assignmentOf(id),
        enrollmentId: enrollmentOf(id),
        points: value?.points ?? null,
        flag: value?.flag ?? null,
      })),
    );
  }
}

const assignmentOf = (id: string) => Number(id.split('/')[0]);
const enrollmentOf = (id: string) => Number(id.split('/')[1]);
