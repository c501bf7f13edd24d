import { useLocation } from 'react-router';
import type { ColumnLayout } from '#core/people';
import { changeOwnView, useOwnView } from '../own-view';

export const plainLayout: ColumnLayout = { hidden: [], order: [], widths: {} };

/** The layout of a grid for the person signed in, at addresses of this kind, and what changes it. */
export function useColumnLayout(grid: string) {
  const { pathname } = useLocation();
  const key = `${kindOfAddress(pathname)} ${grid}`;
  const layout = useOwnView(({ columns }) => columns[key]) ?? plainLayout;
  const change = (changes: Partial<ColumnLayout>) => changeOwnView({ columns: { [key]: { ...layout, ...changes } } });
  const reset = () => changeOwnView({ columns: { [key]: null } });
  return { layout, change, reset, isPlain: layout === plainLayout };
}

/** An address without the numbers of what it shows: all runs share their columns, in every school and period. */
export function kindOfAddress(pathname: string): string {
  return pathname.replace(/^\/school\/\d+\/period\/\d+/, '').replaceAll(/\/\d+/g, '/·');
}

/** Columns as somebody likes them; the first one always stays first and shown, as it says whose row it is. */
export function arranged<Column extends { readonly id: string }>(
  columns: readonly Column[],
  { hidden, order }: ColumnLayout,
): Column[] {
  const [first, ...others] = columns;
  if (!first) return [];
  const rank = (column: Column) => {
    const at = order.indexOf(column.id);
    return at >= 0 ? at : order.length + others.indexOf(column);
  };
  return [first, ...others.filter(({ id }) => !hidden.includes(id)).toSorted((a, b) => rank(a) - rank(b))];
}

/** The order after a column has moved by so many places among the columns that can move. */
export function movedOrder(ids: readonly string[], id: string, by: -1 | 1): string[] {
  const at = ids.indexOf(id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= ids.length) return [...ids];
  return ids.with(at, ids[to]!).with(to, id);
}
