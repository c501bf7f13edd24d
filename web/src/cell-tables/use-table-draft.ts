import { useMemo, useState } from 'react';
import type { Cells } from '#core/cell-tables';
import type { KeptRow, TableImportReply } from '#contract/cell-tables';
import {
  countOf,
  noChanges,
  numberOfNew,
  rebased,
  staleKeys,
  tableRows,
  withEdits,
  withNewRow,
  withNewRows,
  withoutRows,
  withPlan,
  type CellEdit,
  type RowChanges,
} from './table-rows';
import { useSaveRows, type KeptTable } from './use-save-rows';

/** The rows of a table as they are drafted on those that are kept, what of them is selected, and their save. */
export function useTableDraft<Field extends string, Kept extends KeptRow<Field>>(
  of: KeptTable<Field, Kept>,
  kept: readonly Kept[],
) {
  const { draftKey, look, drafts } = of;
  const { table } = look;
  const changes: RowChanges<Field> = drafts.use(draftKey)?.now ?? noChanges;
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [born, setBorn] = useState<ReadonlyMap<number, string>>(new Map());
  const save = useSaveRows(of, (sent, { saved }) => {
    const keys = Object.keys(sent.cells);
    const added = saved.flatMap(({ id }, at) => (numberOfNew(keys[at]!) > 0 ? [[id, keys[at]!] as const] : []));
    setBorn((before) => new Map([...before, ...added]));
    setMarked(new Set());
  });
  const floor = Math.max(0, ...[...born.values()].map(numberOfNew));
  const all = useMemo(
    () => tableRows(table, kept, changes, look.shared, born),
    [table, kept, changes, look.shared, born],
  );
  const faulty = all.filter(({ faults }) => Object.keys(faults).length > 0).length;
  const count = countOf(changes);
  const stale = staleKeys(changes, kept);
  const chosen = all.filter(({ key }) => marked.has(key));
  const change = (next: RowChanges<Field>) => drafts.change(draftKey, null, noChanges, next);
  const canSave = count > 0 && faulty === 0 && stale.length === 0 && !save.isPending;
  return {
    all,
    count,
    faulty,
    marked,
    chosen,
    canSave,
    /** The names of those that others saved since they were changed here. */
    staleTitles: stale.map((key) => {
      const found = kept.find(({ id }) => String(id) === key);
      return found ? look.titleOf(found.cells) : key;
    }),
    keepMine: () => change(rebased(changes, kept)),
    undoStep: () => drafts.undo(draftKey),
    discard: () => drafts.discard(draftKey),
    edit: (
      edits: readonly CellEdit<Field, Kept>[],
      begin: Partial<Cells<Field>>,
      added: readonly Partial<Cells<Field>>[],
    ) => change(withNewRows(table, withEdits(table, changes, edits), begin, added, floor)),
    /** Adds a row and answers with its key. */
    addRow(begin: Partial<Cells<Field>>): string {
      const added = withNewRow(table, changes, begin, floor);
      change(added.changes);
      return added.key;
    },
    takePlan: (plan: TableImportReply<Field>) => change(withPlan(changes, plan, all, floor)),
    setInChosen: (field: Field, value: string) =>
      change(
        withEdits(
          table,
          changes,
          chosen.map((row) => [row, field, value] as const),
        ),
      ),
    removeChosen() {
      change(withoutRows(changes, chosen));
      setMarked(new Set());
    },
    mark: (keys: readonly string[], isMarked: boolean) =>
      setMarked(
        (before) => new Set(isMarked ? [...before, ...keys] : [...before].filter((key) => !keys.includes(key))),
      ),
    markNone: () => setMarked(new Set()),
    store() {
      if (canSave) save.mutate(changes);
    },
  };
}
