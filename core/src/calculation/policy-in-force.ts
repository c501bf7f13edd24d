/** Where a policy holds: the school where department and section are null, in every period where the period is null. */
export interface PolicyPlace {
  readonly department: string | null;
  readonly sectionId: number | null;
  readonly periodId: number | null;
}

/**
 * The policy that a section uses in a period: its own before its department's before the school's, and at the same place
 * the one for the period before the one for every period. Undefined where none was set.
 */
export function policyInForce<Policy extends PolicyPlace>(
  policies: readonly Policy[],
  section: { readonly id: number; readonly department: string },
  periodId: number,
): Policy | undefined {
  return policies
    .filter(
      (policy) =>
        (policy.sectionId === null || policy.sectionId === section.id) &&
        (policy.department === null || policy.department === section.department) &&
        (policy.periodId === null || policy.periodId === periodId),
    )
    .toSorted((a, b) => nearnessOf(b) - nearnessOf(a))[0];
}

/** How near to one grade book a place is, from 0 for a whole school in every period; the nearest policy holds. */
export function nearnessOf({ department, sectionId, periodId }: PolicyPlace): number {
  return (sectionId !== null ? 4 : department !== null ? 2 : 0) + (periodId !== null ? 1 : 0);
}
