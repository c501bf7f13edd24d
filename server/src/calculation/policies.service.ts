import { Injectable } from '@nestjs/common';
import { checkPolicy, type PolicyPlace } from '#core/calculation';
import {
  compareDecimals,
  decimalOrThrow,
  formatAtLeast,
  formatDecimal,
  fromDecimal,
  roundings,
  roundTo,
  type Decimal,
} from '#core/numbers';
import {
  bodyOfPolicy,
  policyFaultSentence,
  policyOfBody,
  type CalculationReply,
  type CategoryReply,
  type CopyPolicyRequest,
  type DifferingReply,
  type PolicyBody,
  type PolicyFaultReply,
  type RemovePolicyRequest,
  type SavePolicyRequest,
} from '#contract/calculation';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { PeriodViews, PoliciesRepository, type KeptPolicy } from '#server/period-view';
import { ReportItemsRepository } from '#server/report-items';
import { BookSectionsRepository, type BookSection } from './book-sections.repository.js';
import { takesFromBook } from './books.service.js';
import { CalculatedGradesRepository } from './calculated-grades.repository.js';
import { CategoriesRepository } from './categories.repository.js';
import { revisionOfCategories } from './categories.service.js';
import { faultsOfPolicy } from './faults-of-policy.js';
import { isSamePlace, thingOf } from './policy-places.js';
import { RecalculationService } from './recalculation.service.js';
import { placeInWords, policiesFor } from './section-policies.js';

interface Ground {
  readonly policies: readonly KeptPolicy[];
  readonly categories: readonly CategoryReply[];
}

/** The policies of a school: what holds where, what is wrong with it, and how it is changed. */
@Injectable()
export class PoliciesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly sections: BookSectionsRepository,
    private readonly policies: PoliciesRepository,
    private readonly categories: CategoriesRepository,
    private readonly views: PeriodViews,
    private readonly items: ReportItemsRepository,
    private readonly grades: CalculatedGradesRepository,
    private readonly recalculation: RecalculationService,
    private readonly log: ChangeLog,
  ) {}

  async inPeriod(periodId: number): Promise<CalculationReply> {
    const queries = this.transactions.reading;
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
      faults: (await this.faultsIn(queries, period)).faults,
      stale: await this.grades.countStale(queries),
      differing: (await this.differingIn(queries, period)).length,
    };
  }

  /** What is wrong with the calculation of a period: of policies first, then sections without a scale. */
  async faultsIn(
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

  /** Posted grades that are no longer what their grade book comes to. */
  async differing(periodId: number): Promise<DifferingReply[]> {
    const queries = this.transactions.reading;
    return this.differingIn(queries, await this.periods.byIdOrThrow(queries, periodId));
  }

  async save(actor: Actor, schoolId: number, request: SavePolicyRequest, periodId: number): Promise<CalculationReply> {
    await this.transactions.run(async (queries) => {
      const place = await this.placeOrThrow(queries, schoolId, request);
      await this.put(queries, actor, schoolId, place, request.policy, request.version);
    });
    await this.recalculation.start();
    return this.inPeriod(periodId);
  }

  /** The place inherits again. The school's own policy stays. */
  async remove(
    actor: Actor,
    schoolId: number,
    request: RemovePolicyRequest,
    periodId: number,
  ): Promise<CalculationReply> {
    await this.transactions.run(async (queries) => {
      const place = await this.placeOrThrow(queries, schoolId, request);
      const before = (await this.policies.ofSchool(queries, schoolId)).find((each) => isSamePlace(each, place));
      if (!before || before.version !== request.version) throw new Refusal('set-up-changed', { what: 'policies' });
      await this.takeAway(queries, actor, schoolId, before);
    });
    await this.recalculation.start();
    return this.inPeriod(periodId);
  }

  /** Gives the policy that holds for a section to others, as their own. */
  async copy(actor: Actor, sectionId: number, request: CopyPolicyRequest, periodId: number): Promise<CalculationReply> {
    await this.transactions.run(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const policies = await this.policies.ofSchool(queries, period.schoolId);
      const sections = await this.sections.inPeriod(queries, period);
      const from = sections.find(({ id }) => id === sectionId);
      const targets = sections.filter(({ id }) => request.toIds.includes(id) && id !== sectionId);
      if (!from || targets.length < request.toIds.filter((id) => id !== sectionId).length)
        throw new Refusal('not-found', { what: `section in ${period.name}`, id: sectionId });
      const { policies: bodies, policyOf } = policiesFor(policies, [from], periodId);
      const policy = bodyOfPolicy(bodies[policyOf[0]![1]]!);
      for (const target of targets) {
        const place = { department: null, sectionId: target.id, periodId: request.periodId };
        const version = policies.find((each) => isSamePlace(each, place))?.version ?? 0;
        await this.put(queries, actor, period.schoolId, place, policy, version);
      }
    });
    await this.recalculation.start();
    return this.inPeriod(periodId);
  }

  /**
   * Gives sections policies of their own in one period, all or none; null lets a section inherit again. Gives back what
   * stood there before, with the versions that stand there now. Where a version is expected, another refuses it all.
   */
  async setForSections(
    actor: Actor,
    period: SchoolPeriod,
    wanted: readonly { readonly sectionId: number; readonly policy: PolicyBody | null; readonly expected?: number }[],
  ): Promise<{ readonly sectionId: number; readonly policy: PolicyBody | null; readonly version: number }[]> {
    const before = await this.transactions.run(async (queries) => {
      await this.periods.holdUnsealedOrThrow(queries, period);
      const ground = await this.ground(queries, period.schoolId);
      const running = new Set((await this.sections.inPeriod(queries, period)).map(({ id }) => id));
      const settled = [];
      for (const { sectionId, policy, expected } of wanted) {
        if (!running.has(sectionId))
          throw new Refusal('not-found', { what: `section in ${period.name}`, id: sectionId });
        const place = { department: null, sectionId, periodId: period.id };
        const had = ground.policies.find((each) => isSamePlace(each, place));
        const version = had?.version ?? 0;
        if (expected !== undefined && version !== expected) throw new Refusal('set-up-changed', { what: 'policies' });
        if (policy) await this.write(queries, actor, period.schoolId, place, policy, version, ground);
        else if (had) await this.takeAway(queries, actor, period.schoolId, had);
        settled.push({ sectionId, policy: had?.policy ?? null, version: policy ? version + 1 : 0 });
      }
      return settled;
    });
    await this.recalculation.start();
    return before;
  }

  private async put(
    queries: Queries,
    actor: Actor,
    schoolId: number,
    place: PolicyPlace,
    policy: PolicyBody,
    version: number,
  ): Promise<void> {
    await this.write(queries, actor, schoolId, place, policy, version, await this.ground(queries, schoolId));
  }

  private async takeAway(queries: Queries, actor: Actor, schoolId: number, before: KeptPolicy): Promise<void> {
    await this.policies.remove(queries, schoolId, before);
    await this.log.record(queries, actor, [
      { action: 'remove policy', thing: thingOf(schoolId, before), before: before.policy, after: null },
    ]);
  }

  /** What a school has, against which a policy is checked. */
  private async ground(queries: Queries, schoolId: number): Promise<Ground> {
    const policies = await this.policies.ofSchool(queries, schoolId);
    return { policies, categories: await this.categories.ofSchool(queries, schoolId) };
  }

  private async write(
    queries: Queries,
    actor: Actor,
    schoolId: number,
    place: PolicyPlace,
    policy: PolicyBody,
    version: number,
    { policies, categories }: Ground,
  ): Promise<void> {
    const known = categories.filter(({ sectionId }) => sectionId === null || sectionId === place.sectionId);
    const blocking = checkPolicy(policyOfBody(policy), known).filter(({ severity }) => severity === 'blocks');
    if (blocking.length > 0)
      throw new Refusal('policy-faulty', { reason: blocking.map(policyFaultSentence).join(' ') });
    const before = policies.find((each) => isSamePlace(each, place));
    const isWritten =
      version === 0
        ? await this.policies.add(queries, schoolId, place, policy)
        : before !== undefined && (await this.policies.change(queries, before.id, version, policy));
    if (!isWritten) throw new Refusal('set-up-changed', { what: 'policies' });
    const thing = thingOf(schoolId, place);
    await this.log.record(queries, actor, [
      { action: 'save policy', thing, before: before?.policy ?? null, after: policy },
    ]);
  }

  private async placeOrThrow(queries: Queries, schoolId: number, place: PolicyPlace): Promise<PolicyPlace> {
    const { department, sectionId, periodId } = place;
    const periods = await this.periods.ofSchool(queries, schoolId);
    if (periodId !== null && !periods.some(({ id }) => id === periodId))
      throw new Refusal('not-found', { what: 'period of this school', id: periodId });
    if (department !== null && sectionId !== null)
      throw new Refusal('policy-faulty', { reason: 'A policy holds for a department or for a section, not for both.' });
    if (sectionId !== null && !(await this.sections.isOfSchool(queries, schoolId, sectionId)))
      throw new Refusal('not-found', { what: 'section of this school', id: sectionId });
    return { department, sectionId, periodId };
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

  private async differingIn(queries: Queries, period: SchoolPeriod): Promise<DifferingReply[]> {
    const items = new Map((await this.items.ofSchool(queries, period.schoolId)).map((item) => [item.id, item]));
    const names = new Map((await this.sections.inPeriod(queries, period)).map(({ id, name }) => [id, name]));
    return (await this.grades.postedBeside(queries, period.id)).flatMap(({ posted, calculated, ...row }) => {
      const { digits, rounding } = items.get(row.itemId)!;
      const rounded = roundTo(fromDecimal(decimalOrThrow(calculated)), digits, roundings[rounding]);
      const stands = roundTo(fromDecimal(decimalOrThrow(posted)), digits, roundings[rounding]);
      const section = names.get(row.sectionId);
      if (rounded.units === stands.units || section === undefined) return [];
      return [{ ...row, section, posted: formatDecimal(stands), calculated: formatDecimal(rounded) }];
    });
  }
}

/** Whether a policy reads levels up to the highest one of a scale, so that what it comes to can be looked up there. */
function readsLevelsTo(highest: Decimal, { policy: { levels } }: KeptPolicy): boolean {
  return levels !== null && compareDecimals(decimalOrThrow(levels.most), highest) === 0;
}
