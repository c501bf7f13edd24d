import { plainPolicy, policyInForce, type PolicyPlace } from '#core/calculation';
import { bodyOfPolicy, policyOfBody, type PolicyBody } from '#contract/calculation';
import type { BookSection } from '../books/book-sections.repository.js';
import type { BookPolicies } from '../calculation-worker.js';

/** A place with the policy that holds there. */
export type PlacedPolicy = PolicyPlace & { readonly policy: PolicyBody };

/** The policy of one section, and where it comes from in words. */
export function policyOfSection({ placed }: Pick<BookSection, 'placed'>): {
  readonly policy: PolicyBody;
  readonly from: string;
} {
  return { policy: placed?.policy ?? bodyOfPolicy(plainPolicy), from: placeInWords(placed) };
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
