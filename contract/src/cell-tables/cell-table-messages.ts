import type { Cells, RowPlan } from '#core/cell-tables';

/** A thing that is kept as a row of cells. */
export interface KeptRow<Field extends string> {
  readonly id: number;
  readonly revision: string;
  readonly cells: Cells<Field>;
}

/** What a file would change. */
export interface TableImportReply<Field extends string> {
  readonly fileName: string;
  readonly headerRow: number;
  readonly fields: readonly string[];
  readonly rows: readonly RowPlan<Field>[];
}

/** A changed or, with `id` null, a new row. */
export interface RowChange<Field extends string> {
  readonly id: number | null;
  /** Of the row that the change began from; empty for a new one. */
  readonly revision: string;
  readonly cells: Cells<Field>;
}

/** All of it is saved, or nothing. */
export interface SaveRowsRequest<Field extends string> {
  readonly changes: readonly RowChange<Field>[];
  readonly removed: readonly number[];
}

/** What the changed rows of a save became, in the order of the request. */
export interface SavedRows {
  readonly saved: readonly Pick<KeptRow<string>, 'id' | 'revision'>[];
}
