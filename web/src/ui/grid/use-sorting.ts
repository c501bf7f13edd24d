import type { SortingState, Updater } from '@tanstack/react-table';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { searchWith } from '../address/search-with';

/** How a column is written in the address: its name, after a minus where it goes down. */
export function sortingOfText(text: string | null, columns: readonly string[]): SortingState {
  const id = text?.replace(/^-/, '');
  return id !== undefined && columns.includes(id) ? [{ id, desc: text!.startsWith('-') }] : [];
}

export function textOfSorting([first]: SortingState): string | null {
  return first ? `${first.desc ? '-' : ''}${first.id}` : null;
}

/**
 * By which column a grid is sorted, kept in the address, so that a link, a reload and the way back show the same order.
 * @param parameter of the address; null where the order is nobody else's, as in a dialog
 * @param columns those that sort; an address that names another one sorts by none
 */
export function useSorting(parameter: string | null, columns: readonly string[]) {
  const [search, setSearch] = useSearchParams();
  const [own, setOwn] = useState<SortingState>([]);
  const sorting = parameter === null ? own : sortingOfText(search.get(parameter), columns);
  const onSortingChange = (updater: Updater<SortingState>) => {
    const next = typeof updater === 'function' ? updater(sorting) : updater;
    if (parameter === null) return setOwn(next);
    const text = textOfSorting(next);
    setSearch((before) => searchWith(before, { [parameter]: text }), { replace: true });
  };
  return { sorting, onSortingChange };
}
