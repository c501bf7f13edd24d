import { Injectable } from '@nestjs/common';
import { mayAt, ofSection } from '#core/access';
import { columnsOf, preparePolicy } from '#core/calculation';
import type { ReportItem } from '#core/report-items';
import { bookScore, policyOfBody, scoreKey, type BookReply } from '#contract/calculation';
import { bodyOfBand } from '#contract/scales';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { Transactions, type Actor, type Queries } from '#server/platform';
import { PeriodViews, scaleOf } from '#server/period-view';
import { BookSectionsRepository, type BookSection } from './book-sections.repository.js';
import { BooksRepository } from './books.repository.js';
import { CalculatedGradesRepository } from '../calculated-grades.repository.js';
import { CategoriesRepository } from '../policies/categories.repository.js';
import { revisionOfCategories } from '../policies/categories.service.js';
import { policyOfSection } from '../policies/section-policies.js';
import { keptGrades } from './kept-grades.js';

/** What stands around the scores of one grade book. */
export interface BookContext {
  readonly section: BookSection;
  readonly period: SchoolPeriod;
}

/** Opens grade books, and keeps what they come to up to date. */
@Injectable()
export class BooksService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly sections: BookSectionsRepository,
    private readonly books: BooksRepository,
    private readonly categories: CategoriesRepository,
    private readonly views: PeriodViews,
    private readonly grades: CalculatedGradesRepository,
  ) {}

  async open(actor: Actor, sectionId: number, periodId: number): Promise<BookReply> {
    return this.transactions.snapshot(async (queries) => {
      return this.read(queries, actor, await this.contextOrThrow(queries, sectionId, periodId));
    });
  }

  /** @throws Refusal not-found */
  async contextOrThrow(queries: Queries, sectionId: number, periodId: number): Promise<BookContext> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const section = await this.sections.oneOrThrow(queries, period, sectionId);
    return { section, period };
  }

  async read(queries: Queries, actor: Actor, { section, period }: BookContext): Promise<BookReply> {
    const sealedAt = await this.periods.sealedAt(queries, period.id);
    const { policy, from } = policyOfSection(section);
    const item = await this.itemOf(queries, period, section.id);
    const assignments = await this.books.assignmentsOf(queries, section.id, period.id);
    const students = await this.books.studentsOf(queries, section.id, period, item?.item.id ?? 0);
    const scores = await this.books.scoresOf(
      queries,
      assignments.map(({ id }) => id),
    );
    const categories = await this.categories.ofSchool(queries, period.schoolId);
    const { id, name, startsOn, endsOn } = period;
    const sections = (await this.sections.inPeriod(queries, period)).filter(
      ({ courseId }) => courseId === section.courseId,
    );
    return {
      sectionId: section.id,
      section: section.name,
      course: section.course,
      teacher: section.teacher,
      period: { id, name, startsOn, endsOn },
      canEdit: sealedAt === null && mayAt(actor, 'score', ofSection(period.schoolId, section)),
      sealedAt: sealedAt?.toISOString() ?? null,
      categories: categories.filter(({ sectionId }) => sectionId === null || sectionId === section.id),
      revision: revisionOfCategories(categories.filter(({ sectionId }) => sectionId === section.id)),
      policy,
      policyFrom: from,
      item: item && {
        id: item.item.id,
        name: item.item.name,
        digits: item.item.digits,
        rounding: item.item.rounding,
        bands: item.scale?.bands.map(bodyOfBand) ?? null,
        scaleName: item.scale?.scaleName ?? null,
      },
      assignments,
      students: students.map(({ percent, mark, ...student }) => ({
        ...student,
        posted: percent === null && mark === null ? null : { percent, mark: mark ?? '' },
      })),
      scores,
      sisters: sections
        .filter(({ id: sister }) => sister !== section.id)
        .map((sister) => ({
          sectionId: sister.id,
          section: sister.name,
          isOwn: sister.teacherId === section.teacherId,
        })),
    };
  }

  /** Calculates one book anew, inside the transaction that changed it; what else changed meanwhile stays to be done. */
  async recalculate(queries: Queries, { section: { id: sectionId }, period }: BookContext): Promise<void> {
    const stale = await this.grades.staleOf(queries, period.id, [sectionId]);
    const section = await this.sections.oneOrThrow(queries, period, sectionId);
    const policy = policyOfBody(policyOfSection(section).policy);
    const assignments = await this.books.assignmentsOf(queries, section.id, period.id);
    const students = await this.books.studentsOf(queries, section.id, period, 0);
    const ids = assignments.map(({ id }) => id);
    const scores = new Map((await this.books.scoresOf(queries, ids)).map((score) => [scoreKey(score), score]));
    const given = students.map(({ enrollmentId }) =>
      assignments
        .filter(({ givenTo }) => givenTo === null || givenTo.includes(enrollmentId))
        .map((assignment) =>
          bookScore(assignment, scores.get(scoreKey({ assignmentId: assignment.id, enrollmentId }))),
        ),
    );
    const grades = keptGrades(columnsOf(given, policy), [preparePolicy(policy)], new Uint8Array(students.length), {
      enrollmentIds: students.map(({ enrollmentId }) => enrollmentId),
      sectionIds: students.map(() => section.id),
      assignmentIds: given.flat().map(({ assignmentId }) => assignmentId),
    });
    await this.grades.settle(queries, period.id, stale, grades);
  }

  /** The item that takes its value from the whole book, else the first that takes it from a category, with its scale. */
  private async itemOf(queries: Queries, period: SchoolPeriod, sectionId: number) {
    const { reported } = await this.views.of(queries, period);
    const own = reported.filter(
      ({ item, sections }) => takesFromBook(item) && sections.some(({ id }) => id === sectionId),
    );
    const found = own.find(({ item }) => item.categoryId === null) ?? own[0];
    return found ? { item: found.item, scale: scaleOf(found, sectionId) } : null;
  }
}

/** Whether an item's value comes from the grade book; as a whole an exam is a score of its own, and conduct is none. */
export function takesFromBook({
  source,
  kind,
  categoryId,
}: Pick<ReportItem, 'source' | 'kind' | 'categoryId'>): boolean {
  return source === 'gradeBook' && (categoryId !== null || (kind !== 'exam' && kind !== 'conduct'));
}
