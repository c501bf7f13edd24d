import { useLocation } from 'react-router';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { useReader } from '../reader';

/** How somebody likes the columns of one grid; a column that it does not speak of is as the grid has it. */
export interface ColumnLayout {
  readonly hidden: readonly string[];
  /** The columns in their order; one that is not there stands where the grid has it, after those before it. */
  readonly order: readonly string[];
  /** Widths in pixels. */
  readonly widths: Readonly<Record<string, number>>;
}

export const plainLayout: ColumnLayout = { hidden: [], order: [], widths: {} };

interface Layouts {
  readonly layouts: Readonly<Record<string, ColumnLayout>>;
}

const useLayouts = create<Layouts>()(persist((): Layouts => ({ layouts: {} }), { name: 'wombat-columns' }));

/** The layout of a grid for the person signed in, at addresses of this kind, and what changes it. */
export function useColumnLayout(grid: string) {
  const { id } = useReader();
  const { pathname } = useLocation();
  const key = `${id} ${kindOfAddress(pathname)} ${grid}`;
  const layout = useLayouts(({ layouts }) => layouts[key]) ?? plainLayout;
  const change = (changes: Partial<ColumnLayout>) =>
    useLayouts.setState(({ layouts }) => ({ layouts: { ...layouts, [key]: { ...layout, ...changes } } }));
  const reset = () =>
    useLayouts.setState(({ layouts }) => ({
      layouts: Object.fromEntries(Object.entries(layouts).filter(([each]) => each !== key)),
    }));
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
