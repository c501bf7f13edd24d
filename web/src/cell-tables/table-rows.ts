import { emptyCells, faultsOfRow, foldCell, type Cells, type CellTable } from '#core/cell-tables';
import {
  cellFaultSentences,
  type KeptRow,
  type SavedRows,
  type SaveRowsRequest,
  type TableImportReply,
} from '#contract/cell-tables';
import type { TableRow } from './table-look';

/** Rows being changed: cells by row, new ones under a key of their own, and those to take out. */
export interface RowChanges<Field extends string> {
  /** By number, or by "new 1" for one that is not saved yet. */
  readonly cells: Readonly<Record<string, Cells<Field>>>;
  /** The revision that each change of a saved row began from. */
  readonly revisions: Readonly<Record<string, string>>;
  readonly removed: readonly number[];
}

/** How many rows differ from what is saved. */
export const countOf = ({ cells, removed }: RowChanges<string>): number => Object.keys(cells).length + removed.length;

export const noChanges = { cells: {}, revisions: {}, removed: [] } as const;

/**
 * The rows of a table: saved ones without those taken out, then the new ones.
 * @param shared what is wrong where two share what none may share; said only where a change made it so
 * @param born the keys that rows had while they were new, by their numbers
 */
export function tableRows<Field extends string, Kept extends KeptRow<Field>>(
  table: CellTable<Field>,
  kept: readonly Kept[],
  changes: RowChanges<Field>,
  shared: string,
  born: ReadonlyMap<number, string> = new Map(),
): TableRow<Field, Kept>[] {
  const none = emptyCells(table);
  const saved = kept
    .filter(({ id }) => !changes.removed.includes(id))
    .map((reply) => ({
      key: String(reply.id),
      place: born.get(reply.id) ?? String(reply.id),
      reply,
      cells: changes.cells[reply.id] ?? reply.cells,
    }));
  const added = Object.entries(changes.cells)
    .filter(([key]) => key.startsWith('new'))
    .map(([key, cells]) => ({ key, place: key, reply: undefined, cells }));
  const all = [...saved, ...added];
  // An answer that was lost on its way leaves rows here that are saved.
  const keptTexts = new Set(added.length === 0 ? [] : kept.map(({ cells }) => textOfRow(table, cells)));
  const [counts, touched] = [new Map<string, number>(), new Set<string>()];
  for (const { key, cells } of all) {
    const own = foldCell(table.unique.keyOf(cells));
    if (own === '') continue;
    counts.set(own, (counts.get(own) ?? 0) + 1);
    if (key in changes.cells) touched.add(own);
  }
  return all.map((row) => {
    const before = row.reply?.cells ?? none;
    const faults: Partial<Record<Field, string>> = {};
    // What a roster brought may stay as it is, and keeps nothing else from being saved.
    if (row.key in changes.cells)
      for (const { field, fault } of faultsOfRow(table, row.cells)) faults[field] = cellFaultSentences[fault];
    if (!row.reply && keptTexts.has(textOfRow(table, row.cells)))
      faults[table.unique.field] = 'nothing: exactly this row is saved already; remove it here';
    const own = foldCell(table.unique.keyOf(row.cells));
    if (!faults[table.unique.field] && touched.has(own) && counts.get(own)! > 1) faults[table.unique.field] = shared;
    return { ...row, changed: new Set(table.fields.filter((field) => row.cells[field] !== before[field])), faults };
  });
}

function textOfRow<Field extends string>({ fields }: CellTable<Field>, cells: Cells<Field>): string {
  return JSON.stringify(fields.map((field) => cells[field]));
}

export type CellEdit<Field extends string, Kept extends KeptRow<Field>> = readonly [
  row: TableRow<Field, Kept>,
  field: Field,
  text: string,
];

/** The changes with some cells set. A row that is again as it was saved is no change any more. */
export function withEdits<Field extends string, Kept extends KeptRow<Field>>(
  table: CellTable<Field>,
  changes: RowChanges<Field>,
  edits: readonly CellEdit<Field, Kept>[],
): RowChanges<Field> {
  const cells: Record<string, Cells<Field>> = { ...changes.cells };
  const revisions: Record<string, string> = { ...changes.revisions };
  for (const [row, field, text] of edits) {
    const next: Cells<Field> = { ...(cells[row.key] ?? row.cells), [field]: table.tidy(field, text) };
    const isSaved = row.reply !== undefined && table.fields.every((each) => next[each] === row.reply!.cells[each]);
    if (isSaved) {
      delete cells[row.key];
      delete revisions[row.key];
    } else {
      cells[row.key] = next;
      if (row.reply) revisions[row.key] ??= row.reply.revision;
    }
  }
  return { ...changes, cells, revisions };
}

/** With a new row that begins with some cells, and its key. @param floor numbers of new rows up to this are not given again */
export function withNewRow<Field extends string>(
  table: CellTable<Field>,
  changes: RowChanges<Field>,
  begins: Partial<Cells<Field>>,
  floor = 0,
): { readonly changes: RowChanges<Field>; readonly key: string } {
  const key = `new ${newestOf(changes, floor) + 1}`;
  return { key, changes: { ...changes, cells: { ...changes.cells, [key]: { ...emptyCells(table), ...begins } } } };
}

/** With new rows whose cells were pasted, each upon what a new row begins with. */
export function withNewRows<Field extends string>(
  table: CellTable<Field>,
  changes: RowChanges<Field>,
  begins: Partial<Cells<Field>>,
  added: readonly Partial<Cells<Field>>[],
  floor = 0,
): RowChanges<Field> {
  if (added.length === 0) return changes;
  const cells: Record<string, Cells<Field>> = { ...changes.cells };
  let newest = newestOf(changes, floor);
  for (const pasted of added) {
    const row: Record<Field, string> = { ...emptyCells(table), ...begins };
    for (const field of table.fields) if (pasted[field] !== undefined) row[field] = table.tidy(field, pasted[field]);
    cells[`new ${++newest}`] = row;
  }
  return { ...changes, cells };
}

export function withoutRows<Field extends string, Kept extends KeptRow<Field>>(
  changes: RowChanges<Field>,
  rows: readonly TableRow<Field, Kept>[],
): RowChanges<Field> {
  const keys = new Set(rows.map(({ key }) => key));
  const kept = <Value>(record: Readonly<Record<string, Value>>) =>
    Object.fromEntries(Object.entries(record).filter(([key]) => !keys.has(key)));
  const removed = rows.flatMap(({ reply }) => reply?.id ?? []);
  return { cells: kept(changes.cells), revisions: kept(changes.revisions), removed: [...changes.removed, ...removed] };
}

export function requestOf<Field extends string>(changes: RowChanges<Field>): SaveRowsRequest<Field> {
  return {
    changes: Object.entries(changes.cells).map(([key, cells]) => ({
      id: key.startsWith('new') ? null : Number(key),
      revision: changes.revisions[key] ?? '',
      cells,
    })),
    removed: [...changes.removed],
  };
}

/** After a save: what was sent goes, as it is saved now; what was changed since stays, upon what was saved. */
export function withoutSent<Field extends string>(
  table: CellTable<Field>,
  now: RowChanges<Field>,
  sent: RowChanges<Field>,
  { saved }: SavedRows,
): RowChanges<Field> {
  const became = new Map(Object.keys(sent.cells).map((key, at) => [key, saved[at]!]));
  const cells: Record<string, Cells<Field>> = {};
  const revisions: Record<string, string> = {};
  for (const [key, row] of Object.entries(now.cells)) {
    const kept = became.get(key);
    if (kept && textOfRow(table, row) === textOfRow(table, sent.cells[key]!)) continue;
    const id = kept ? String(kept.id) : key;
    const revision = kept ? kept.revision : now.revisions[key];
    cells[id] = row;
    if (revision !== undefined) revisions[id] = revision;
  }
  return { cells, revisions, removed: now.removed.filter((id) => !sent.removed.includes(id)) };
}

/** What a file would bring, as changes that are not saved yet; what is the same or refused is not touched. */
export function withPlan<Field extends string, Kept extends KeptRow<Field>>(
  changes: RowChanges<Field>,
  plan: TableImportReply<Field>,
  rows: readonly TableRow<Field, Kept>[],
  floor = 0,
): RowChanges<Field> {
  const byKey = new Map(rows.map((row) => [row.key, row]));
  const cells: Record<string, Cells<Field>> = { ...changes.cells };
  const revisions: Record<string, string> = { ...changes.revisions };
  let newest = newestOf(changes, floor);
  for (const row of plan.rows) {
    if (row.outcome !== 'new' && row.outcome !== 'changed') continue;
    const kept = row.id === null ? undefined : byKey.get(String(row.id));
    cells[kept?.key ?? `new ${++newest}`] = row.cells;
    if (kept?.reply) revisions[kept.key] = kept.reply.revision;
  }
  return { ...changes, cells, revisions };
}

/** The highest number of a new row, at least the floor. */
function newestOf({ cells }: RowChanges<string>, floor: number): number {
  return Object.keys(cells).reduce((newest, key) => Math.max(newest, numberOfNew(key)), floor);
}

/** The number in the key of a new row; 0 for one that is kept. */
export function numberOfNew(key: string): number {
  return Number(/^new (\d+)$/.exec(key)?.[1] ?? 0);
}

/** Rows of the draft that somebody else saved meanwhile, by their keys. */
export function staleKeys<Field extends string>(
  changes: RowChanges<Field>,
  kept: readonly KeptRow<Field>[],
): readonly string[] {
  const revisions = new Map(kept.map(({ id, revision }) => [String(id), revision]));
  return Object.keys(changes.revisions).filter((key) => revisions.get(key) !== changes.revisions[key]);
}

/** The draft upon what is saved now. */
export function rebased<Field extends string>(
  changes: RowChanges<Field>,
  kept: readonly KeptRow<Field>[],
): RowChanges<Field> {
  const revisions = new Map(kept.map(({ id, revision }) => [String(id), revision]));
  const entries = Object.keys(changes.revisions).map((key) => [key, revisions.get(key) ?? '']);
  return { ...changes, revisions: Object.fromEntries(entries) as Record<string, string> };
}
