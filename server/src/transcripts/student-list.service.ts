import { Injectable } from '@nestjs/common';
import { formatDecimal } from '#core/numbers';
import { gpa, sumCredits } from '#core/transcripts';
import { gpaPolicyOfBody, type StudentRowReply } from '#contract/transcripts';
import { PeriodsRepository } from '#server/calendar';
import { GpaPolicyRepository, PeriodViews } from '#server/period-view';
import { Transactions } from '#server/platform';
import { SealsRepository } from './seals.repository.js';

/** The students of a school with what their sealed grades come to, and what a period still wants of them. */
@Injectable()
export class StudentListService {
  constructor(
    private readonly transactions: Transactions,
    private readonly seals: SealsRepository,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly gpa: GpaPolicyRepository,
  ) {}

  async of(schoolId: number, periodId: number, text: string): Promise<StudentRowReply[]> {
    return this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const students = await this.seals.students(queries, schoolId, text.trim());
      const entries = await this.seals.entriesOf(
        queries,
        students.map(({ id }) => id),
      );
      const policy = gpaPolicyOfBody(await this.gpa.read(queries));
      const { reported } = await this.views.of(queries, period);
      const blanks = await this.seals.blanksOf(
        queries,
        period,
        reported.flatMap(({ item, sections }) => sections.map(({ id }) => ({ itemId: item.id, sectionId: id }))),
      );
      return students.map((student) => {
        const own = entries.get(student.id) ?? [];
        const { value } = gpa(own, policy);
        return {
          ...student,
          creditsAttempted: formatDecimal(sumCredits(own.map(({ creditsTried }) => creditsTried))),
          creditsEarned: formatDecimal(sumCredits(own.map(({ creditsEarned }) => creditsEarned))),
          gpa: value && formatDecimal(value),
          blanks: blanks.get(student.id) ?? 0,
        };
      });
    });
  }
}
