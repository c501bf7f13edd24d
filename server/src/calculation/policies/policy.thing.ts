import { checkPolicy } from '#core/calculation';
import { policyFaultSentence, policyOfBody, type PolicyBody } from '#contract/calculation';
import { PeriodsRepository } from '#server/calendar';
import { ThingOf, type Thing } from '#server/changes';
import { PoliciesRepository } from '#server/period-view';
import { Refusal, type Queries } from '#server/platform';
import { CategoriesRepository } from './categories.repository.js';
import { isSamePlace, placeOfPolicy } from './policy-places.js';

/** How the grade books of a place are calculated, by the place. What lies in a sealed period stays. */
@ThingOf({
  kind: 'policy',
  called: 'the calculation',
  change: 'change-set-up',
  see: 'read-set-up',
  at: (id) => ({ kind: 'school', id: Number(id.split('/')[0]) }),
})
export class PolicyThing implements Thing<PolicyBody> {
  constructor(
    private readonly policies: PoliciesRepository,
    private readonly categories: CategoriesRepository,
    private readonly periods: PeriodsRepository,
  ) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, PolicyBody>> {
    const found = new Map<string, PolicyBody>();
    for (const [schoolId, places] of bySchool(ids)) {
      const kept = await this.policies.ofSchool(queries, schoolId);
      for (const [id, place] of places) {
        const own = kept.find((each) => isSamePlace(each, place));
        if (own) found.set(id, own.policy);
      }
    }
    return found;
  }

  async check(queries: Queries, values: ReadonlyMap<string, PolicyBody | null>): Promise<void> {
    for (const [schoolId, places] of bySchool([...values.keys()])) {
      const categories = await this.categories.ofSchool(queries, schoolId);
      for (const periodId of new Set([...places.values()].flatMap((place) => place.periodId ?? [])))
        await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, periodId));
      for (const [id, place] of places) {
        const policy = values.get(id);
        if (!policy) continue;
        const known = categories.filter(({ sectionId }) => sectionId === null || sectionId === place.sectionId);
        const blocking = checkPolicy(policyOfBody(policy), known).filter(({ severity }) => severity === 'blocks');
        if (blocking.length > 0)
          throw new Refusal('policy-faulty', { reason: blocking.map(policyFaultSentence).join(' ') });
      }
    }
  }

  async write(queries: Queries, values: ReadonlyMap<string, PolicyBody | null>): Promise<void> {
    for (const [id, policy] of values) {
      const { schoolId, place } = placeOfPolicy(id);
      if (policy) await this.policies.put(queries, schoolId, place, policy);
      else await this.policies.remove(queries, schoolId, place);
    }
  }
}

function bySchool(ids: readonly string[]) {
  const schools = new Map<number, Map<string, ReturnType<typeof placeOfPolicy>['place']>>();
  for (const id of ids) {
    const { schoolId, place } = placeOfPolicy(id);
    schools.set(schoolId, (schools.get(schoolId) ?? new Map<string, typeof place>()).set(id, place));
  }
  return schools;
}
