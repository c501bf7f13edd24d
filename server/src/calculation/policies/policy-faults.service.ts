import { Injectable } from '@nestjs/common';
import { compareDecimals, decimalOrThrow, formatAtLeast, type Decimal } from '#core/numbers';
import type { PolicyFaultReply } from '#contract/calculation';
import type { SchoolPeriod } from '#server/calendar';
import { PeriodViews, PoliciesRepository, type KeptPolicy } from '#server/period-view';
import type { Queries } from '#server/platform';
import { BookSectionsRepository, type BookSection } from '../books/book-sections.repository.js';
import { takesFromBook } from '../books/books.service.js';
import { CategoriesRepository } from './categories.repository.js';
import { faultsOfPolicy } from './faults-of-policy.js';

/** What is wrong with the calculation of a period. */
@Injectable()
export class PolicyFaults {
  constructor(
    private readonly sections: BookSectionsRepository,
    private readonly policies: PoliciesRepository,
    private readonly categories: CategoriesRepository,
    private readonly views: PeriodViews,
  ) {}

  /** Of policies first, then sections without a scale. */
  async in(
    queries: Queries,
    period: SchoolPeriod,
  ): Promise<{ readonly policies: number; readonly faults: PolicyFaultReply[] }> {
    const categories = await this.categories.ofSchool(queries, period.schoolId);
    const policies = await this.policies.ofSchool(queries, period.schoolId);
    const sections = await this.sections.inPeriod(queries, period);
    const faults = [
      ...policies.flatMap((policy) => faultsOfPolicy(policy, categories, sections)),
      ...(await this.unlabelled(queries, period, sections)),
    ];
    return { policies: policies.length, faults };
  }

  private async unlabelled(
    queries: Queries,
    period: SchoolPeriod,
    sections: readonly BookSection[],
  ): Promise<PolicyFaultReply[]> {
    const withScores = new Map(sections.filter(({ scores }) => scores > 0).map((section) => [section.id, section]));
    const faults: PolicyFaultReply[] = [];
    for (const { item, sections: reporting, scales } of (await this.views.of(queries, period)).reported) {
      if (!takesFromBook(item)) continue;
      for (const { id, name, policy } of reporting) {
        const scale = scales.get(id);
        if (!scale && withScores.has(id)) {
          const says = `${name} comes to a percent but gets no label for ${item.name}: no scale is in force there.`;
          faults.push({ code: 'percent-without-scale', severity: 'blocks', policyId: null, sectionId: id, says });
        }
        const highest = scale?.version.highestLevel;
        if (highest && policy && !readsLevelsTo(highest, policy)) {
          const says = `${item.name} of ${name} is looked up on levels to ${formatAtLeast(highest, 0)}, which its calculation does not read.`;
          faults.push({ code: 'levels-not-read', severity: 'blocks', policyId: policy.id, sectionId: id, says });
        }
      }
    }
    return faults;
  }
}

/** Whether a policy reads levels up to the highest one of a scale, so that what it comes to can be looked up there. */
function readsLevelsTo(highest: Decimal, { policy: { levels } }: KeptPolicy): boolean {
  return levels !== null && compareDecimals(decimalOrThrow(levels.most), highest) === 0;
}
