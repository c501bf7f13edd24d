import { Injectable } from '@nestjs/common';
import {
  scoreKey,
  type AddAssignmentRequest,
  type AssignmentReply,
  type BookReply,
  type ChangeAssignmentRequest,
  type SaveCategoriesRequest,
  type SaveScoresRequest,
} from '#contract/calculation';
import { Changes } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { counted } from '#contract/messages';
import { assignmentName } from './assignment.thing.js';
import { BookAccess, type BookPlace } from './book-access.service.js';
import { BookSectionsRepository } from './book-sections.repository.js';
import { BooksRepository } from './books.repository.js';
import { BooksService, type BookContext } from './books.service.js';
import { CategoriesService } from '../policies/categories.service.js';

/** Changes grade books: scores and assignments. What a book comes to is calculated anew in the same transaction. */
@Injectable()
export class SaveBookService {
  constructor(
    private readonly transactions: Transactions,
    private readonly access: BookAccess,
    private readonly sections: BookSectionsRepository,
    private readonly books: BooksRepository,
    private readonly opened: BooksService,
    private readonly lists: CategoriesService,
    private readonly changes: Changes,
  ) {}

  /** All changes or none. A score that somebody else saved meanwhile refuses the save by name. */
  async saveScores(actor: Actor, place: BookPlace, { changes }: SaveScoresRequest): Promise<BookReply> {
    return this.change(actor, place, async (queries, { section, period }) => {
      const assignments = new Map(
        (await this.books.assignmentsOf(queries, section.id, period.id)).map((each) => [each.id, each]),
      );
      const students = new Map(
        (await this.books.studentsOf(queries, section.id, period, 0)).map((each) => [each.enrollmentId, each.student]),
      );
      refuseStrange(changes, assignments, students);
      const before = new Map(
        (await this.books.scoresOf(queries, [...assignments.keys()])).map((score) => [scoreKey(score), score.version]),
      );
      const stale = changes.filter((change) => (before.get(scoreKey(change)) ?? 0) !== change.version);
      if (stale.length > 0) {
        const fields = stale.map(({ assignmentId, enrollmentId }) => ({
          field: scoreKey({ assignmentId, enrollmentId }),
          detail: `${students.get(enrollmentId)!}, ${assignments.get(assignmentId)!.name}`,
        }));
        throw new Refusal('scores-changed', { count: stale.length }, fields);
      }
      await this.changes.make(queries, actor, {
        action: `save scores of ${section.name}`,
        edits: changes.map(({ assignmentId, enrollmentId, points, flag }) => ({
          kind: 'score',
          id: scoreKey({ assignmentId, enrollmentId }),
          after: (points ?? flag) === null ? null : { points, flag },
        })),
      });
    });
  }

  /** The assignment in this section and, beside it, in others of the same course that the person teaches. */
  async addAssignment(actor: Actor, place: BookPlace, { alsoIn, ...body }: AddAssignmentRequest): Promise<BookReply> {
    return this.change(actor, place, async (queries, { section, period }) => {
      const others = (await this.sections.inPeriod(queries, period)).filter(({ id }) => alsoIn.includes(id));
      if (others.some((each) => each.courseId !== section.courseId)) throw new Refusal('not-allowed');
      const sections = [section, ...others];
      const ids = await nextIds(queries, 'assignments', sections.length);
      await this.changes.make(queries, actor, {
        action: `add ${body.name} to ${sections.length === 1 ? section.name : counted(sections.length, 'section')}`,
        edits: sections.map((each, at) => ({
          kind: 'assignment',
          id: assignmentName({ sectionId: each.id, periodId: period.id }, ids[at]!),
          after: { ...body, givenTo: each === section ? body.givenTo : null, sectionId: each.id, periodId: period.id },
        })),
      });
    });
  }

  async changeAssignment(
    actor: Actor,
    place: BookPlace,
    assignmentId: number,
    { version, ...body }: ChangeAssignmentRequest,
  ): Promise<BookReply> {
    return this.change(actor, place, async (queries, context) => {
      const before = await this.assignmentOrThrow(queries, context, assignmentId);
      if (before.version !== version) throw new Refusal('set-up-changed', { what: `facts of ${before.name}` });
      await this.changes.make(queries, actor, {
        action: `change ${before.name} of ${context.section.name}`,
        edits: [{ kind: 'assignment', id: assignmentName(place, assignmentId), after: { ...body, ...place } }],
      });
    });
  }

  async removeAssignment(actor: Actor, place: BookPlace, assignmentId: number): Promise<BookReply> {
    return this.change(actor, place, async (queries, context) => {
      const { name } = await this.assignmentOrThrow(queries, context, assignmentId);
      await this.changes.make(queries, actor, {
        action: `delete ${name} from ${context.section.name}`,
        edits: [{ kind: 'assignment', id: assignmentName(place, assignmentId), after: null }],
      });
    });
  }

  /** The section's own categories; those of the school are the registrar's. */
  async saveCategories(actor: Actor, place: BookPlace, request: SaveCategoriesRequest): Promise<BookReply> {
    return this.change(actor, place, async (queries, { section, period }) => {
      await this.lists.write(queries, actor, { schoolId: period.schoolId, sectionId: section.id }, request);
    });
  }

  private async change(
    actor: Actor,
    place: BookPlace,
    work: (queries: Queries, context: BookContext) => Promise<void>,
  ): Promise<BookReply> {
    return this.transactions.run(async (queries) => {
      const context = await this.opened.contextOrThrow(queries, place.sectionId, place.periodId);
      await this.access.hold(queries, [place]);
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
}

/** What is not of this book. @throws Refusal scores-faulty */
function refuseStrange(
  changes: SaveScoresRequest['changes'],
  assignments: ReadonlyMap<number, AssignmentReply>,
  students: ReadonlyMap<number, string>,
): void {
  const faults = changes.flatMap(({ assignmentId, enrollmentId }): FieldFault[] => {
    const field = scoreKey({ assignmentId, enrollmentId });
    const assignment = assignments.get(assignmentId);
    if (!assignment) return [{ field, detail: 'an assignment of this section and period' }];
    return students.has(enrollmentId) ? [] : [{ field, detail: `a student who was given ${assignment.name}` }];
  });
  if (faults.length > 0) throw new Refusal('scores-faulty', { count: faults.length }, faults);
}
