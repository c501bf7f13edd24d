import type { ReactNode } from 'react';
import type { Cells, CellTable } from '#core/cell-tables';
import type { KeptRow } from '#contract/cell-tables';

/** A row of the spreadsheet: what is kept as it is drafted, or something new. */
export interface TableRow<Field extends string, Kept extends KeptRow<Field>> {
  readonly key: string;
  /** Names the row as long as the page is shown: a new one keeps the name that it had before it was saved. */
  readonly place: string;
  /** Undefined for what is new. */
  readonly reply: Kept | undefined;
  readonly cells: Cells<Field>;
  readonly changed: ReadonlySet<Field>;
  readonly faults: Readonly<Partial<Record<Field, string>>>;
}

/** How a cell table shows. */
export interface TableLook<Field extends string, Kept extends KeptRow<Field>> {
  readonly table: CellTable<Field>;
  /** What the whole is called: "Courses". */
  readonly label: string;
  /** What a row without a title is called: "the new course". */
  readonly newOne: string;
  readonly titleOf: (cells: Cells<Field>) => string;
  /** What is wrong where two share what none may share. */
  readonly shared: string;
  /** Pixels. */
  readonly widths: Readonly<Record<Field, number>>;
  /** The first columns, which stay while the rest scrolls sideways. */
  readonly staying: readonly Field[];
  /** The column that takes the room that is left, and is set in bold. */
  readonly main: Field;
  /** Columns that stand on their decimal point. */
  readonly onPoint: ReadonlySet<Field>;
  /** Columns whose figures are all of one width. */
  readonly inFigures: ReadonlySet<Field>;
  /** A cell for the eye, where it is not what is typed: a name as the reader likes it. */
  readonly shown?: (field: Field, text: string) => string;
  /** What holds where a cell is empty, in grey. */
  readonly standIn: (row: TableRow<Field, Kept>, field: Field) => string;
  /** What stands behind a cell in words; undefined where there is nothing to say. */
  readonly reasonOf: (row: TableRow<Field, Kept>, field: Field) => string | undefined;
  /** A last column that is told and not typed. */
  readonly told: {
    readonly heading: string;
    readonly width: number;
    readonly cell: (kept: Kept) => ReactNode;
    readonly reasonOf: (kept: Kept) => string | undefined;
  };
}

export const markWidth = 34;

/** Distance from the left at which a column stays; undefined where it scrolls. */
export function staysAt<Field extends string, Kept extends KeptRow<Field>>(
  { staying, widths }: TableLook<Field, Kept>,
  field: Field,
): number | undefined {
  const at = staying.indexOf(field);
  return at === -1 ? undefined : staying.slice(0, at).reduce((sum, each) => sum + widths[each], markWidth);
}

export function totalWidth<Field extends string, Kept extends KeptRow<Field>>({
  table,
  widths,
  told,
}: TableLook<Field, Kept>): number {
  return table.fields.reduce((sum, field) => sum + widths[field], markWidth + told.width);
}
