import { Injectable } from '@nestjs/common';
import { plainPolicy, policyInForce, type PolicyPlace } from '#core/calculation';
import { bodyOfPolicy, policyOfBody, type PolicyBody } from '#contract/calculation';
import type { Queries } from '#server/platform';
import type { BookSection } from './book-sections.repository.js';
import type { BookPolicies } from './calculation-worker.js';
import { PoliciesRepository, type KeptPolicy } from './policies.repository.js';

/** A place with the policy that holds there. */
export type PlacedPolicy = PolicyPlace & { readonly policy: PolicyBody };

/** Says which policy holds for which section in a period. */
@Injectable()
export class SectionPolicies {
  constructor(private readonly policies: PoliciesRepository) {}

  async ofSchool(queries: Queries, schoolId: number): Promise<KeptPolicy[]> {
    return this.policies.ofSchool(queries, schoolId);
  }

  /** The policy of one section, and where it comes from in words. */
  async ofSection(
    queries: Queries,
    schoolId: number,
    section: BookSection,
    periodId: number,
  ): Promise<{ readonly policy: PolicyBody; readonly from: string }> {
    const found = policyInForce(await this.ofSchool(queries, schoolId), section, periodId);
    return { policy: found?.policy ?? bodyOfPolicy(plainPolicy), from: placeInWords(found) };
  }
}

/** Policies for the calculation of many sections; where none was set, Wombat's plain one holds. */
export function policiesFor(
  placed: readonly PlacedPolicy[],
  sections: readonly Pick<BookSection, 'id' | 'department'>[],
  periodId: number,
): BookPolicies {
  return {
    policies: [...placed.map(({ policy }) => policyOfBody(policy)), plainPolicy],
    policyOf: sections.map((section) => {
      const found = policyInForce(placed, section, periodId);
      return [section.id, found ? placed.indexOf(found) : placed.length] as const;
    }),
  };
}

/** Where a policy comes from: "the school", "Sea and Shore" or "this section". */
export function placeInWords(place: PolicyPlace | undefined): string {
  if (!place) return 'Wombat, as none was set';
  const where = place.sectionId !== null ? 'this section' : (place.department ?? 'the school');
  return place.periodId === null ? where : `${where}, for this period`;
}
