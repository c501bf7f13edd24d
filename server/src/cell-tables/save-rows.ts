import type { Cells, CellTable } from '#core/cell-tables';
import type { RowChange } from '#contract/cell-tables';
import type { CountedThing } from '#contract/messages';
import type { Changes, Edit } from '#server/changes';
import { nextIds, Refusal, type Actor, type Queries } from '#server/platform';
import { actionOfRows } from './action-of-rows.js';
import { refuseUnknownRows, rowFaults } from './row-faults.js';
import { idsOfChanges } from './saved-rows.js';

/** What a save of rows asks for. */
export interface RowsRequest<Field extends string> {
  readonly changes: readonly RowChange<Field>[];
  readonly removed: readonly number[];
}

/** Rows of one kind as they are kept. */
export interface SavedTable<Field extends string> {
  readonly table: CellTable<Field>;
  /** Of the things that the rows are; also what one is called. */
  readonly kind: CountedThing;
  /** Of the database, which numbers them. */
  readonly numberedBy: string;
  /** The refusal where a cell cannot be taken. */
  readonly faulty: 'courses-faulty' | 'people-faulty' | 'sections-faulty' | 'enrollments-faulty';
  readonly own: readonly { readonly id: number }[];
  /** What other rows than those of the request have where no two may have the same. */
  readonly taken: readonly string[];
  /** What would be right there. */
  readonly sharing: string;
  /** What a kept row is called in the log. */
  readonly nameOf: (id: number) => string;
  /** What a new row is called there. */
  readonly titleOf: (cells: Cells<Field>) => string;
  /** The value that the cells say, of a new row with null for its number. */
  readonly valueOf: (cells: Cells<Field>, id: number | null) => unknown;
  /** What goes with the rows that are removed, and before them. */
  readonly before?: readonly Edit[];
}

/**
 * Saves rows as one change, all of it or nothing. The numbers of the changed rows, in the order of the request.
 * @throws Refusal not-found, the table's own where cells are faulty, and whatever the kind of thing refuses
 */
export async function saveRows<Field extends string>(
  queries: Queries,
  by: { readonly changes: Changes; readonly actor: Actor },
  of: SavedTable<Field>,
  request: RowsRequest<Field>,
): Promise<readonly number[]> {
  const { changes, removed } = request;
  refuseUnknownRows(of.kind, of.own, changes, removed);
  const faults = rowFaults(of.table, changes, of.taken, of.sharing);
  if (faults.length > 0) throw new Refusal(of.faulty, { count: faults.length }, faults);
  const added = changes.filter(({ id }) => id === null).length;
  const ids = idsOfChanges(changes, await nextIds(queries, of.numberedBy, added));
  const edits = changes.map(({ id, revision, cells }, at): Edit => ({
    kind: of.kind,
    id: String(ids[at]),
    ...(id !== null && { expected: revision }),
    after: of.valueOf(cells, id),
  }));
  await by.changes.make(queries, by.actor, {
    action: actionOfRows(of.kind, request, of.nameOf, ({ cells }) => of.titleOf(cells)),
    edits: [...(of.before ?? []), ...removed.map((id) => ({ kind: of.kind, id: String(id), after: null })), ...edits],
  });
  return ids;
}

/** The numbers of the kept rows that a request changes or removes. */
export function concernedBy({ changes, removed }: RowsOf): ReadonlySet<number> {
  return new Set([...removed, ...changes.flatMap(({ id }) => id ?? [])]);
}

/** The rows that a request leaves alone. */
export function othersOf<Row extends { readonly id: number }>(own: readonly Row[], request: RowsOf): Row[] {
  const concerned = concernedBy(request);
  return own.filter(({ id }) => !concerned.has(id));
}

interface RowsOf {
  readonly changes: readonly { readonly id: number | null }[];
  readonly removed: readonly number[];
}
