import { Injectable } from '@nestjs/common';
import type { CalculationReply, DifferingReply } from '#contract/calculation';
import { PeriodsRepository } from '#server/calendar';
import { revisionOf } from '#server/changes';
import { PoliciesRepository } from '#server/period-view';
import { Transactions } from '#server/platform';
import { BookSectionsRepository } from '../books/book-sections.repository.js';
import { CalculatedGradesRepository } from '../calculated-grades.repository.js';
import { CategoriesRepository } from './categories.repository.js';
import { revisionOfCategories } from './categories.service.js';
import { DifferingGrades } from './differing-grades.service.js';
import { PolicyFaults } from './policy-faults.service.js';
import { placeInWords, policiesFor } from './section-policies.js';

/** The policies of a school: what holds where. */
@Injectable()
export class PoliciesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly sections: BookSectionsRepository,
    private readonly policies: PoliciesRepository,
    private readonly categories: CategoriesRepository,
    private readonly faults: PolicyFaults,
    private readonly differingGrades: DifferingGrades,
    private readonly grades: CalculatedGradesRepository,
  ) {}

  async inPeriod(periodId: number): Promise<CalculationReply> {
    return this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const categories = await this.categories.ofSchool(queries, period.schoolId);
      const policies = await this.policies.ofSchool(queries, period.schoolId);
      const sections = await this.sections.inPeriod(queries, period);
      const names = new Map(sections.map(({ id, name }) => [id, name]));
      const periodNames = new Map(
        (await this.periods.ofSchool(queries, period.schoolId)).map(({ id, name }) => [id, name]),
      );
      const { policyOf } = policiesFor(policies, sections, periodId);
      return {
        categories,
        revision: revisionOfCategories(categories.filter(({ sectionId }) => sectionId === null)),
        departments: [...new Set(sections.map(({ department }) => department))].toSorted(),
        policies: policies.map((policy) => ({
          ...policy,
          revision: revisionOf(policy.policy),
          section: policy.sectionId === null ? null : (names.get(policy.sectionId) ?? `section ${policy.sectionId}`),
          period: policy.periodId === null ? null : (periodNames.get(policy.periodId) ?? null),
        })),
        books: sections.map(({ id, name, teacherId: _teacherId, ...section }, at) => {
          const policy = policies[policyOf[at]![1]];
          return {
            ...section,
            sectionId: id,
            section: name,
            policyId: policy?.id ?? null,
            from: placeInWords(policy),
            revision: revisionOfCategories(categories.filter(({ sectionId }) => sectionId === id)),
          };
        }),
        faults: (await this.faults.in(queries, period)).faults,
        stale: await this.grades.countStale(queries),
        differing: (await this.differingGrades.in(queries, period)).length,
      };
    });
  }

  /** Posted grades that are no longer what their grade book comes to. */
  async differing(periodId: number): Promise<DifferingReply[]> {
    return this.transactions.snapshot(async (queries) => {
      return this.differingGrades.in(queries, await this.periods.byIdOrThrow(queries, periodId));
    });
  }
}
