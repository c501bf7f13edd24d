import { checkPolicy } from '#core/calculation';
import { policyFaultSentence, policyOfBody, type CategoryReply, type PolicyFaultReply } from '#contract/calculation';
import type { BookSection } from '../books/book-sections.repository.js';
import type { KeptPolicy } from '#server/period-view';

/** What is wrong with a policy beside the categories of its place, in words. */
export function faultsOfPolicy(
  { id, policy, sectionId }: KeptPolicy,
  categories: readonly CategoryReply[],
  sections: readonly BookSection[],
): PolicyFaultReply[] {
  const known = categories.filter((each) => each.sectionId === null || each.sectionId === sectionId);
  const where = sectionId === null ? '' : `${sections.find((each) => each.id === sectionId)?.name ?? 'A section'}: `;
  return checkPolicy(policyOfBody(policy), known).map((fault) => ({
    code: fault.code,
    severity: fault.severity,
    policyId: id,
    sectionId,
    says: where + policyFaultSentence(fault),
  }));
}
