import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import type { SheetReply } from '#contract/posting';
import { counted } from '#contract/messages';
import type { CellText } from '../ui/grid/cell-range';
import type { EditKind } from '../ui/grid/use-cell-cursor';
import { markDrafts, noMarkDrafts } from './mark-drafts';
import { createSheetEntry, type EntryFault } from './sheet-entry';
import { createSheetRows, entryRulesOf, type SheetRow } from './sheet-view';

/** A sheet with what is typed over it: its rows, what could not be read, and what typing, filling and undoing do. */
export function useSheetDraft(sheetId: string, sheet: SheetReply) {
  const draft = markDrafts.use(sheetId);
  const drafts = draft?.now ?? noMarkDrafts;
  const rules = useMemo(() => entryRulesOf(sheet), [sheet]);
  const rowsWith = useMemo(() => createSheetRows(sheet, rules), [sheet, rules]);
  const rows = useMemo(() => rowsWith(drafts), [rowsWith, drafts]);
  const entry = createSheetEntry(sheetId, sheet, rows, rules);
  const [faults, setFaults] = useState<readonly EntryFault[]>([]);
  const isIn = (places: readonly Pick<EntryFault, 'enrollmentId' | 'column'>[]) => {
    const keys = new Set(places.map(({ enrollmentId, column }) => `${enrollmentId}/${column}`));
    return ({ enrollmentId, column }: EntryFault) => keys.has(`${enrollmentId}/${column}`);
  };
  return {
    drafts,
    rules,
    rows,
    entry,
    faults,
    unsaved: rows.filter(({ isUnsaved }) => isUnsaved),
    canUndo: (draft?.undo.length ?? 0) > 0,
    undo: () => markDrafts.undo(sheetId),
    discard: () => {
      markDrafts.discard(sheetId);
      setFaults([]);
    },
    edit(texts: readonly CellText[], kind: EditKind) {
      const found = entry.edit(texts, kind);
      const isTouched = isIn(entry.cellsOf(texts));
      setFaults((before) => [...before.filter((fault) => !isTouched(fault)), ...found]);
      if (kind === 'pasted' && found.length > 0)
        toast.error(`${counted(found.length, 'cell')} could not be read. The notes of each row say why.`);
    },
    takeComputed(chosen: readonly SheetRow[]) {
      entry.takeComputed(chosen);
      const ids = new Set(chosen.map(({ reply }) => reply.enrollmentId));
      setFaults((before) => before.filter(({ enrollmentId }) => !ids.has(enrollmentId)));
    },
  };
}
