import { useCallback } from 'react';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { showGivenFirst } from './format';
import { useReader } from './reader';

/** Whether lists of people go by family or by given name. */
export type PeopleOrder = 'family' | 'given';

interface Orders {
  /** By the number of the person who likes it so. */
  readonly orders: Readonly<Record<number, PeopleOrder>>;
}

const useOrders = create<Orders>()(persist((): Orders => ({ orders: {} }), { name: 'wombat-people-order' }));

/** The order that the person signed in likes, and what changes it. */
export function usePeopleOrder(): readonly [PeopleOrder, (order: PeopleOrder) => void] {
  const { id } = useReader();
  const order = useOrders(({ orders }) => orders[id]) ?? 'family';
  return [order, (to) => useOrders.setState(({ orders }) => ({ orders: { ...orders, [id]: to } }))];
}

/** Brings the rows of a reply, which come by family name, into the order of the reader: their names and their sequence. */
export function useInPeopleOrder() {
  const [order] = usePeopleOrder();
  return useCallback(
    <Key extends string, Row extends Readonly<Record<Key, string>>>(rows: readonly Row[], key: Key) =>
      inPeopleOrder(rows, key, order),
    [order],
  );
}

/**
 * Rows in an order of people. Rows of one person keep their sequence.
 *
 * @example inPeopleOrder([{ name: 'Carrow, Hale' }], 'name', 'given') // [{ name: 'Hale Carrow' }]
 */
export function inPeopleOrder<Key extends string, Row extends Readonly<Record<Key, string>>>(
  rows: readonly Row[],
  key: Key,
  order: PeopleOrder,
): readonly Row[] {
  if (order === 'family') return rows;
  return rows
    .map((row) => ({ ...row, [key]: showGivenFirst(row[key]) }))
    .toSorted((a, b) => a[key].localeCompare(b[key]));
}
