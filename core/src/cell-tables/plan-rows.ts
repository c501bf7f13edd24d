import { emptyCells, faultsOfRow, foldCell, type CellFault, type Cells, type CellTable } from './cell-table.js';

export type RowOutcome = 'new' | 'changed' | 'same' | 'faulty' | 'twice';

/** What taking in one row of a file would do. */
export interface RowPlan<Field extends string> {
  /** In the file, counted from 1. */
  readonly row: number;
  readonly outcome: RowOutcome;
  readonly cells: Cells<Field>;
  /** The number of what it changes; null for something new. */
  readonly id: number | null;
  readonly changed: readonly Field[];
  readonly faults: readonly { readonly field: Field; readonly fault: CellFault }[];
}

export interface TablePlan<Field extends string> {
  readonly headerRow: number;
  /** The column of each field that the file has. */
  readonly columns: Readonly<Partial<Record<Field, number>>>;
  readonly rows: readonly RowPlan<Field>[];
}

interface Kept<Field extends string> {
  readonly id: number;
  readonly cells: Cells<Field>;
}

/**
 * Plans taking in a file: the first row that names the needed columns is its heading; a row changes what it is known as, or
 * makes something new. A column that the file lacks leaves that fact as it is. Undefined where no row names the needed columns.
 */
export function planRows<Field extends string>(
  table: CellTable<Field>,
  file: readonly (readonly string[])[],
  existing: readonly Kept<Field>[],
): TablePlan<Field> | undefined {
  const headerAt = file.findIndex((cells) =>
    table.neededColumns.every((field) => columnOf(table, cells, field) !== -1),
  );
  if (headerAt === -1) return undefined;
  const found = table.fields.map((field) => [field, columnOf(table, file[headerAt]!, field)] as const);
  const columns = Object.fromEntries(found.filter(([, column]) => column !== -1)) as Partial<Record<Field, number>>;
  const known = knownBy(table, existing);
  const seen = new Set<number | string>();
  const rows = file.slice(headerAt + 1).flatMap((cells, index): RowPlan<Field>[] => {
    if (cells.every((cell) => cell.trim() === '')) return [];
    const said = cellsOf(table, emptyCells(table), cells, columns);
    const kept = table
      .identities(said)
      .map((identity) => known.get(identity))
      .find((each) => each !== undefined && each !== 'several' && !table.isOther(said, each.cells));
    const plan = planRow(table, headerAt + 2 + index, cells, columns, kept === 'several' ? undefined : kept);
    const own = foldCell(table.unique.keyOf(said));
    const names = [JSON.stringify(said), ...(own === '' ? [] : [own]), ...(plan.id === null ? [] : [plan.id])];
    const isTwice = names.some((name) => seen.has(name));
    for (const name of names) seen.add(name);
    return [isTwice ? { ...plan, outcome: 'twice' } : plan];
  });
  return { headerRow: headerAt + 1, columns, rows };
}

function knownBy<Field extends string>(
  { identities }: CellTable<Field>,
  existing: readonly Kept<Field>[],
): ReadonlyMap<string, Kept<Field> | 'several'> {
  const known = new Map<string, Kept<Field> | 'several'>();
  for (const each of existing)
    for (const identity of identities(each.cells)) known.set(identity, known.has(identity) ? 'several' : each);
  return known;
}

function planRow<Field extends string>(
  table: CellTable<Field>,
  row: number,
  cells: readonly string[],
  columns: TablePlan<Field>['columns'],
  kept: Kept<Field> | undefined,
): RowPlan<Field> {
  const before = kept?.cells ?? emptyCells(table);
  const read = cellsOf(table, before, cells, columns);
  const faults = faultsOfRow(table, read);
  const changed = table.fields.filter((field) => read[field] !== before[field]);
  const outcome = faults.length > 0 ? 'faulty' : !kept ? 'new' : changed.length > 0 ? 'changed' : 'same';
  return { row, outcome, cells: read, id: kept?.id ?? null, changed, faults };
}

function cellsOf<Field extends string>(
  { fields, tidy }: CellTable<Field>,
  before: Cells<Field>,
  cells: readonly string[],
  columns: TablePlan<Field>['columns'],
): Cells<Field> {
  const read = fields.map((field) => {
    const column = columns[field];
    return [field, column === undefined ? before[field] : tidy(field, cells[column] ?? '')];
  });
  return Object.fromEntries(read) as Record<Field, string>;
}

function columnOf<Field extends string>(
  { headings, otherHeadings }: CellTable<Field>,
  header: readonly string[],
  field: Field,
): number {
  const wanted = new Set([headings[field], field, ...(otherHeadings[field] ?? [])].map(foldHeading));
  return header.findIndex((cell) => wanted.has(foldHeading(cell)));
}

/** "Course_Code" and "course code" are the same heading. */
function foldHeading(text: string): string {
  return foldCell(text).replace(/[\s_-]+/g, ' ');
}
