import type { AssignmentReply, BookReply, CategoryReply } from '#contract/calculation';

/** The assignments of one category beside each other, by due date. */
export interface CategoryColumns {
  readonly category: CategoryReply;
  readonly assignments: readonly AssignmentReply[];
  /** Its weight as the policy has it; null where it has none. */
  readonly weight: string | null;
}

/** The columns of a grade book: categories in the order of the policy, then those it does not weigh. */
export function bookColumns({ categories, assignments, policy }: BookReply, newestFirst = false): CategoryColumns[] {
  const way = newestFirst ? -1 : 1;
  const weights = new Map(policy.categories.map(({ categoryId, weight }) => [categoryId, weight]));
  const order = policy.categories.map(({ categoryId }) => categoryId);
  const rank = ({ id }: CategoryReply) => (order.includes(id) ? order.indexOf(id) : order.length);
  return categories
    .toSorted((a, b) => rank(a) - rank(b))
    .map((category) => ({
      category,
      weight: weights.get(category.id) ?? null,
      assignments: assignments
        .filter(({ categoryId }) => categoryId === category.id)
        .toSorted((a, b) => way * (a.dueOn.localeCompare(b.dueOn) || a.id - b.id)),
    }))
    .filter(({ assignments: own, weight }) => own.length > 0 || weight !== null);
}
