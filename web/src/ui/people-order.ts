import { useCallback } from 'react';
import { nameAs, type OwnView } from '#core/people';
import { useOwnView } from './own-view';

type HowCalled = Pick<OwnView, 'peopleOrder' | 'names'>;

/** Brings the rows of a reply, which come by family name, into the order of the reader: their names and their sequence. */
export function useInPeopleOrder() {
  const peopleOrder = useOwnView((view) => view.peopleOrder);
  const names = useOwnView((view) => view.names);
  return useCallback(
    <Key extends string, Row extends Readonly<Record<Key, string>>>(rows: readonly Row[], key: Key) =>
      inPeopleOrder(rows, key, { peopleOrder, names }),
    [peopleOrder, names],
  );
}

/**
 * Rows in an order of people. Rows of one person keep their sequence.
 *
 * @example inPeopleOrder([{ name: 'Carrow, Hale' }], 'name', { peopleOrder: 'given', names: 'both' }) // [{ name: 'Hale Carrow' }]
 */
export function inPeopleOrder<Key extends string, Row extends Readonly<Record<Key, string>>>(
  rows: readonly Row[],
  key: Key,
  { peopleOrder: order, names }: HowCalled,
): readonly Row[] {
  // So they come.
  if (order === 'family' && names === 'both') return rows;
  const called = rows.map((row) => ({ ...row, [key]: nameAs(row[key], { order, names }) }));
  return order === 'family' ? called : called.toSorted((a, b) => a[key].localeCompare(b[key]));
}
