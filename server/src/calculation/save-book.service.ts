import { Injectable } from '@nestjs/common';
import { readScore } from '#core/calculation';
import { decimalOrThrow } from '#core/numbers';
import {
  scoreFaultSentence,
  scoreKey,
  type AddAssignmentRequest,
  type AssignmentBody,
  type AssignmentReply,
  type BookReply,
  type ChangeAssignmentRequest,
  type SaveCategoriesRequest,
  type SaveScoresRequest,
  type ScoreChangeBody,
  type ScoreReply,
} from '#contract/calculation';
import { PeriodsRepository } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { BookSectionsRepository } from './book-sections.repository.js';
import { canEditBook } from './book-policy.js';
import { BooksRepository } from './books.repository.js';
import { BooksService, type BookContext } from './books.service.js';
import { CategoriesRepository } from './categories.repository.js';
import { CategoriesService } from './categories.service.js';

/** Changes grade books: scores and assignments. What a book comes to is calculated anew in the same transaction. */
@Injectable()
export class SaveBookService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly sections: BookSectionsRepository,
    private readonly books: BooksRepository,
    private readonly opened: BooksService,
    private readonly categories: CategoriesRepository,
    private readonly lists: CategoriesService,
    private readonly log: ChangeLog,
  ) {}

  /** All changes or none. A score that somebody else saved meanwhile refuses the save by name. */
  async saveScores(
    actor: Actor,
    place: { readonly sectionId: number; readonly periodId: number },
    { changes }: SaveScoresRequest,
  ): Promise<BookReply> {
    return this.change(actor, place, async (queries, { section, period }) => {
      const assignments = new Map(
        (await this.books.assignmentsOf(queries, section.id, period.id)).map((each) => [each.id, each]),
      );
      const students = await this.books.studentsOf(queries, section.id, period, 0);
      refuseFaultyScores(changes, assignments, new Set(students.map(({ enrollmentId }) => enrollmentId)));
      const before = new Map(
        (await this.books.scoresOf(queries, [...assignments.keys()])).map((score) => [scoreKey(score), score]),
      );
      const stale = changes.filter((change) => (before.get(scoreKey(change))?.version ?? 0) !== change.version);
      if (stale.length > 0) {
        const names = new Map(students.map(({ enrollmentId, student }) => [enrollmentId, student]));
        const fields = stale.map(({ assignmentId, enrollmentId }) => ({
          field: scoreKey({ assignmentId, enrollmentId }),
          detail: `${names.get(enrollmentId)!}, ${assignments.get(assignmentId)!.name}`,
        }));
        throw new Refusal('scores-changed', { count: stale.length }, fields);
      }
      const written = changes.map((change): ScoreReply => ({ ...change, version: change.version + 1 }));
      await this.books.writeScores(queries, written);
      await this.log.record(
        queries,
        actor,
        changes.map((change) => ({
          action: 'save score',
          thing: `score ${change.assignmentId}/${change.enrollmentId}`,
          before: loggedScore(before.get(scoreKey(change))),
          after: loggedScore(change),
        })),
      );
    });
  }

  /** The assignment in this section and, beside it, in others of the same course that the person teaches. */
  async addAssignment(
    actor: Actor,
    place: { readonly sectionId: number; readonly periodId: number },
    { alsoIn, ...body }: AddAssignmentRequest,
  ): Promise<BookReply> {
    return this.change(actor, place, async (queries, context) => {
      await this.refuseFaulty(queries, context, body);
      const others = (await this.sections.inPeriod(queries, context.period)).filter(({ id }) => alsoIn.includes(id));
      if (others.some((each) => each.courseId !== context.section.courseId || !canEditBook(actor, each)))
        throw new Refusal('not-allowed');
      for (const section of [context.section, ...others]) {
        const own = section === context.section ? body : { ...body, givenTo: null };
        const id = await this.books.add(queries, section.id, context.period.id, own);
        await this.log.record(queries, actor, [
          {
            action: 'add assignment',
            thing: `assignment ${id}`,
            before: null,
            after: { ...own, section: section.name },
          },
        ]);
      }
    });
  }

  async changeAssignment(
    actor: Actor,
    place: { readonly sectionId: number; readonly periodId: number },
    assignmentId: number,
    { version, ...body }: ChangeAssignmentRequest,
  ): Promise<BookReply> {
    return this.change(actor, place, async (queries, context) => {
      const before = await this.assignmentOrThrow(queries, context, assignmentId);
      await this.refuseFaulty(queries, context, body, before);
      if (!(await this.books.change(queries, assignmentId, version, body)))
        throw new Refusal('set-up-changed', { what: `facts of ${before.name}` });
      await this.log.record(queries, actor, [
        { action: 'change assignment', thing: `assignment ${assignmentId}`, before, after: body },
      ]);
    });
  }

  /** An assignment with scores stays: it may be set to not counted, or its scores be taken out first. */
  async removeAssignment(
    actor: Actor,
    place: { readonly sectionId: number; readonly periodId: number },
    assignmentId: number,
  ): Promise<BookReply> {
    return this.change(actor, place, async (queries, context) => {
      const before = await this.assignmentOrThrow(queries, context, assignmentId);
      const kept = (await this.books.scoresOf(queries, [assignmentId])).filter(
        ({ points, flag }) => points !== null || flag !== null,
      );
      if (kept.length > 0) {
        const instead = 'Set it to “not counted” instead, or empty its column first.';
        throw new Refusal('in-use', {
          what: 'The assignment',
          name: before.name,
          uses: `${kept.length} scores`,
          instead,
        });
      }
      await this.books.remove(queries, assignmentId);
      await this.log.record(queries, actor, [
        { action: 'remove assignment', thing: `assignment ${assignmentId}`, before, after: null },
      ]);
    });
  }

  /** The section's own categories; those of the school are the registrar's. */
  async saveCategories(
    actor: Actor,
    place: { readonly sectionId: number; readonly periodId: number },
    request: SaveCategoriesRequest,
  ): Promise<BookReply> {
    return this.change(actor, place, async (queries, { section, period }) => {
      await this.lists.write(queries, actor, { schoolId: period.schoolId, sectionId: section.id }, request);
    });
  }

  private async change(
    actor: Actor,
    { sectionId, periodId }: { readonly sectionId: number; readonly periodId: number },
    work: (queries: Queries, context: BookContext) => Promise<void>,
  ): Promise<BookReply> {
    return this.transactions.run(async (queries) => {
      const context = await this.opened.contextOrThrow(queries, actor, sectionId, periodId);
      if (!canEditBook(actor, context.section)) throw new Refusal('not-allowed');
      await this.periods.holdUnsealedOrThrow(queries, context.period);
      await this.books.lockOrThrow(queries, sectionId);
      await work(queries, context);
      await this.opened.recalculate(queries, context);
      return this.opened.read(queries, actor, context);
    });
  }

  private async assignmentOrThrow(
    queries: Queries,
    { section, period }: BookContext,
    id: number,
  ): Promise<AssignmentReply> {
    const found = (await this.books.assignmentsOf(queries, section.id, period.id)).find((each) => each.id === id);
    if (!found) throw new Refusal('not-found', { what: `assignment of ${section.name}`, id });
    return found;
  }

  private async refuseFaulty(
    queries: Queries,
    { section, period }: BookContext,
    body: AssignmentBody,
    before?: AssignmentReply,
  ): Promise<void> {
    const faults: FieldFault[] = [];
    const category = (await this.categories.ofSchool(queries, period.schoolId)).find(
      ({ id }) => id === body.categoryId,
    );
    const isHere = category && (category.sectionId === null || category.sectionId === section.id);
    if (!isHere) faults.push({ field: 'categoryId', detail: 'a category of this section or its school' });
    if (body.dueOn < period.startsOn || body.dueOn > period.endsOn)
      faults.push({ field: 'dueOn', detail: `a day of ${period.name}, from ${period.startsOn} to ${period.endsOn}` });
    const students = new Set(
      (await this.books.studentsOf(queries, section.id, period, 0)).map(({ enrollmentId }) => enrollmentId),
    );
    if (body.givenTo?.some((id) => !students.has(id)))
      faults.push({ field: 'givenTo', detail: 'students of this section' });
    if (before) faults.push(...(await this.faultsOfScores(queries, before.id, body)));
    if (faults.length > 0) throw new Refusal('assignment-faulty', {}, faults);
  }

  /** Scores that an assignment has may not come to lie above what it is out of, nor with nobody it is given to. */
  private async faultsOfScores(
    queries: Queries,
    id: number,
    { possible, isExtra, givenTo }: AssignmentBody,
  ): Promise<FieldFault[]> {
    const scores = await this.books.scoresOf(queries, [id]);
    const limit = { possible: decimalOrThrow(possible), isExtra };
    const above = scores.filter(({ points }) => points !== null && readScore(points, limit).kind === 'fault').length;
    const outside = scores.filter(
      ({ enrollmentId, points, flag }) => (points ?? flag) !== null && givenTo && !givenTo.includes(enrollmentId),
    ).length;
    return [
      ...(above > 0
        ? [{ field: 'possible', detail: `at least what is scored: ${above} scores lie above ${possible}` }]
        : []),
      ...(outside > 0 ? [{ field: 'givenTo', detail: `everybody who has a score: ${outside} would be left out` }] : []),
    ];
  }
}

function refuseFaultyScores(
  changes: readonly ScoreChangeBody[],
  assignments: ReadonlyMap<number, AssignmentReply>,
  students: ReadonlySet<number>,
): void {
  const faults = changes.flatMap(({ assignmentId, enrollmentId, points }): FieldFault[] => {
    const field = scoreKey({ assignmentId, enrollmentId });
    const assignment = assignments.get(assignmentId);
    if (!assignment) return [{ field, detail: 'an assignment of this section and period' }];
    const isGiven = assignment.givenTo === null || assignment.givenTo.includes(enrollmentId);
    if (!students.has(enrollmentId) || !isGiven)
      return [{ field, detail: `a student who was given ${assignment.name}` }];
    const limit = { possible: decimalOrThrow(assignment.possible), isExtra: assignment.isExtra };
    const entry = readScore(points ?? '', limit);
    return entry.kind === 'fault' ? [{ field, detail: scoreFaultSentence(entry.code, assignment.possible) }] : [];
  });
  if (faults.length > 0) throw new Refusal('scores-faulty', { count: faults.length }, faults);
}

function loggedScore(score: Pick<ScoreReply, 'points' | 'flag'> | undefined) {
  return score ? { points: score.points, flag: score.flag } : null;
}
