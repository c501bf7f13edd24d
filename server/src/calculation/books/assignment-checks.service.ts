import { Injectable } from '@nestjs/common';
import { readScore } from '#core/calculation';
import { decimalOrThrow } from '#core/numbers';
import { PeriodsRepository } from '#server/calendar';
import { Refusal, type FieldFault, type Queries } from '#server/platform';
import { counted } from '#contract/messages';
import type { AssignmentValue } from './assignment.thing.js';
import { BooksRepository } from './books.repository.js';
import { CategoriesRepository } from '../policies/categories.repository.js';

/** What an assignment may not be, and when it may not go. */
@Injectable()
export class AssignmentChecks {
  constructor(
    private readonly periods: PeriodsRepository,
    private readonly books: BooksRepository,
    private readonly categories: CategoriesRepository,
  ) {}

  /** @throws Refusal assignment-faulty */
  async refuseFaulty(queries: Queries, id: number, value: AssignmentValue): Promise<void> {
    const { sectionId, periodId, categoryId, dueOn, givenTo } = value;
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const faults: FieldFault[] = [];
    const category = (await this.categories.ofSchool(queries, period.schoolId)).find((each) => each.id === categoryId);
    const isHere = category && (category.sectionId === null || category.sectionId === sectionId);
    if (!isHere) faults.push({ field: 'categoryId', detail: 'a category of this section or its school' });
    if (dueOn < period.startsOn || dueOn > period.endsOn)
      faults.push({ field: 'dueOn', detail: `a day of ${period.name}, from ${period.startsOn} to ${period.endsOn}` });
    const students = new Set(
      (await this.books.studentsOf(queries, sectionId, period, 0)).map(({ enrollmentId }) => enrollmentId),
    );
    if (givenTo?.some((each) => !students.has(each)))
      faults.push({ field: 'givenTo', detail: 'students of this section' });
    faults.push(...(await this.faultsOfScores(queries, id, value)));
    if (faults.length > 0) throw new Refusal('assignment-faulty', {}, faults);
  }

  /** An assignment with scores stays: it may be set to not counted, or its scores be removed first. @throws Refusal in-use */
  async refuseUsed(queries: Queries, ids: readonly number[]): Promise<void> {
    const all = (await this.books.scoresOf(queries, ids)).filter(({ points, flag }) => (points ?? flag) !== null);
    if (all.length === 0) return;
    const id = all[0]!.assignmentId;
    const kept = all.filter(({ assignmentId }) => assignmentId === id);
    const { name } = (await this.books.assignmentsById(queries, [id])).get(id)!;
    const instead = 'Set it to “not counted” instead, or empty its column first.';
    throw new Refusal('in-use', { what: 'The assignment', name, uses: counted(kept.length, 'score'), instead });
  }

  /** Scores that an assignment has may not come to lie above what it is out of, nor with nobody it is given to. */
  private async faultsOfScores(
    queries: Queries,
    id: number,
    { possible, isExtra, givenTo }: AssignmentValue,
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
      ...(outside > 0 ? [{ field: 'givenTo', detail: `everyone who has a score; missing here: ${outside}` }] : []),
    ];
  }
}
