import { Injectable } from '@nestjs/common';
import type { PolicyPlace } from '#core/calculation';
import {
  bodyOfPolicy,
  type CopyPolicyRequest,
  type PolicyBody,
  type RemovePolicyRequest,
  type SavePolicyRequest,
} from '#contract/calculation';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { PoliciesRepository } from '#server/period-view';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { counted } from '#contract/messages';
import { BookSectionsRepository } from '../books/book-sections.repository.js';
import { isSamePlace, policyId } from './policy-places.js';
import { RecalculationService } from '../recalculation.service.js';
import { policiesFor } from './section-policies.js';

/** Changes policies: one at its place, or those of many sections together. What rests on them is calculated anew. */
@Injectable()
export class SavePolicyService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly sections: BookSectionsRepository,
    private readonly policies: PoliciesRepository,
    private readonly recalculation: RecalculationService,
    private readonly changes: Changes,
  ) {}

  async save(actor: Actor, schoolId: number, { revision, policy, ...where }: SavePolicyRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      const place = await this.placeOrThrow(queries, schoolId, where);
      await this.make(queries, actor, 'save the calculation', [editOf(schoolId, place, policy, revision)]);
    });
    await this.recalculation.start();
  }

  /** The place inherits again. The school's own policy stays. */
  async remove(actor: Actor, schoolId: number, { revision, ...where }: RemovePolicyRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      const place = await this.placeOrThrow(queries, schoolId, where);
      await this.make(queries, actor, 'let a calculation be inherited', [editOf(schoolId, place, null, revision)]);
    });
    await this.recalculation.start();
  }

  /** Gives the policy that holds for a section to others, as their own: to all of them, or to none. */
  async copy(actor: Actor, sectionId: number, request: CopyPolicyRequest, periodId: number): Promise<void> {
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
      const edits = targets.map(({ id }) => {
        const place = { department: null, sectionId: id, periodId: request.periodId };
        const before = policies.find((each) => isSamePlace(each, place));
        return editOf(period.schoolId, place, policy, revisionOf(before?.policy ?? null));
      });
      const onto = targets.length === 1 ? targets[0]!.name : counted(targets.length, 'section');
      await this.make(queries, actor, `calculate ${onto} like ${from.name}`, edits);
    });
    await this.recalculation.start();
  }

  /** Gives sections policies of their own in one period, all or none. */
  async setForSections(
    actor: Actor,
    period: SchoolPeriod,
    action: string,
    wanted: readonly { readonly sectionId: number; readonly policy: PolicyBody }[],
  ): Promise<void> {
    await this.transactions.run(async (queries) => {
      const policies = await this.policies.ofSchool(queries, period.schoolId);
      const running = new Set((await this.sections.inPeriod(queries, period)).map(({ id }) => id));
      const edits = wanted.map(({ sectionId, policy }) => {
        if (!running.has(sectionId))
          throw new Refusal('not-found', { what: `section in ${period.name}`, id: sectionId });
        const place = { department: null, sectionId, periodId: period.id };
        const before = policies.find((each) => isSamePlace(each, place));
        return editOf(period.schoolId, place, policy, revisionOf(before?.policy ?? null));
      });
      await this.make(queries, actor, action, edits);
    });
    await this.recalculation.start();
  }

  private make(queries: Queries, actor: Actor, action: string, edits: readonly Edit[]): Promise<number | null> {
    return this.changes.make(queries, actor, { action, edits });
  }

  private async placeOrThrow(queries: Queries, schoolId: number, place: PolicyPlace): Promise<PolicyPlace> {
    const { department, sectionId, periodId } = place;
    const periods = await this.periods.ofSchool(queries, schoolId);
    if (periodId !== null && !periods.some(({ id }) => id === periodId))
      throw new Refusal('not-found', { what: 'period of this school', id: periodId });
    if (department !== null && sectionId !== null)
      throw new Refusal('policy-faulty', { reason: 'A policy is for a department or for a section, not for both.' });
    if (sectionId !== null && !(await this.sections.isOfSchool(queries, schoolId, sectionId)))
      throw new Refusal('not-found', { what: 'section of this school', id: sectionId });
    return { department, sectionId, periodId };
  }
}

/** An empty revision stands for a place without a policy of its own. */
function editOf(schoolId: number, place: PolicyPlace, after: PolicyBody | null, revision: string): Edit {
  return { kind: 'policy', id: policyId(schoolId, place), expected: revision || revisionOf(null), after };
}
