import type { LedgerRow } from './run-plan.js';

/** By this a line is the same line in another plan of the same class. */
export function rowKey({ kind, columnKey, personKey }: Pick<LedgerRow, 'kind' | 'columnKey' | 'personKey'>): string {
  return `${kind}|${columnKey}|${personKey}`;
}

/**
 * Whether a line that somebody looked at would still do the same, planned again now. Only then is it carried out: nothing
 * is written that nobody saw.
 */
export function isStillPlanned(
  seen: Pick<LedgerRow, 'outcome' | 'before' | 'after'>,
  now: Pick<LedgerRow, 'outcome' | 'before' | 'after'> | undefined,
): boolean {
  return now?.outcome === seen.outcome && sameFields(seen.before, now.before) && sameFields(seen.after, now.after);
}

function sameFields(one: LedgerRow['before'], other: LedgerRow['before']): boolean {
  return inOrder(one) === inOrder(other);
}

/** A database may give the fields back in another order. */
function inOrder(facts: LedgerRow['before']): string {
  return JSON.stringify(facts && Object.entries(facts).toSorted(([a], [b]) => (a < b ? -1 : 1)));
}
