import type { KeptRow, RowChange, SavedRows } from '#contract/cell-tables';

/** The numbers of changed rows: each its own, a new one the next of those that are given. */
export function idsOfChanges(
  changes: readonly Pick<RowChange<string>, 'id'>[],
  given: readonly number[],
): readonly number[] {
  let at = 0;
  return changes.map(({ id }) => id ?? given[at++]!);
}

/** What changed rows became among those that are kept now. */
export function savedRows(
  ids: readonly number[],
  kept: readonly Pick<KeptRow<string>, 'id' | 'revision'>[],
): SavedRows {
  const revisions = new Map(kept.map(({ id, revision }) => [id, revision]));
  return { saved: ids.map((id) => ({ id, revision: revisions.get(id)! })) };
}
