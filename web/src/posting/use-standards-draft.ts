import { useMemo, useRef, useState } from 'react';
import type { SheetReply } from '#contract/posting';
import type { CellText } from '../ui/grid/cell-range';
import type { EditKind } from '../ui/grid/use-cell-cursor';
import { keepMarksOver, markDrafts, noMarkDrafts, type MarkDrafts } from './mark-drafts';
import { createSheetEntry, type EntryFault } from './sheet-entry';
import { createSheetRows, entryRulesOf, type SheetRow } from './sheet-view';
import { columnsOf } from './sheet-columns';

/** A cell that could not be read, and the standard that it stands under. */
export interface StandardFault extends EntryFault {
  readonly itemId: number;
}

/** One standard with what is typed over it. */
export interface DraftedStandard {
  readonly sheet: SheetReply;
  readonly id: string;
  readonly drafts: MarkDrafts;
  readonly rows: readonly SheetRow[];
  readonly entry: ReturnType<typeof createSheetEntry>;
}

/** What a standard takes from the keyboard: levels where its scale has them, else labels. */
const cellColumn = ({ highestLevel }: Pick<SheetReply, 'highestLevel'>) => (highestLevel === null ? 'mark' : 'percent');

/**
 * The standards of a section with what is typed over them. Each keeps its drafts as its own grade sheet does, so that what was
 * typed here stands there too. Column `standards.length` is the comment, which belongs to the first standard that takes any.
 */
export function useStandardsDraft(sheets: readonly SheetReply[]) {
  const all = markDrafts.useAll();
  const [faults, setFaults] = useState<readonly StandardFault[]>([]);
  /** Which standards each step changed, for undoing: a pasted block is one step of several. */
  const steps = useRef<(readonly string[])[]>([]);
  const builders = useMemo(
    () =>
      sheets.map((sheet) => {
        const rules = entryRulesOf(sheet);
        return { sheet, rules, rowsWith: createSheetRows(sheet, rules) };
      }),
    [sheets],
  );
  const standards = builders.map(({ sheet, rules, rowsWith }): DraftedStandard => {
    const id = `${sheet.sectionId}/${sheet.itemId}/${sheet.period.id}`;
    const drafts = all[id]?.now ?? noMarkDrafts;
    const rows = rowsWith(drafts);
    return { sheet, id, drafts, rows, entry: createSheetEntry(id, sheet, rows, rules) };
  });
  const commentAt = standards.findIndex(({ sheet }) => sheet.commentRule !== 'none');
  /** Which standard a column of the grid belongs to, and which of its own columns it is. */
  const placeOf = (column: number) => {
    const isComment = column >= standards.length;
    const standard = standards[isComment ? commentAt : column]!;
    const own = columnsOf(standard.sheet).indexOf(isComment ? 'comment' : cellColumn(standard.sheet));
    return { standard, own };
  };
  return {
    standards,
    commentAt,
    placeOf,
    faults,
    unsaved: standards.reduce((sum, { rows }) => sum + rows.filter(({ isUnsaved }) => isUnsaved).length, 0),
    edit(texts: readonly CellText[], kind: EditKind) {
      const byStandard = new Map<DraftedStandard, CellText[]>();
      for (const [row, column, text] of texts) {
        const { standard, own } = placeOf(column);
        // Where a figure is a level, what is none is read as a label or a code.
        const isLabel = column < standards.length && /^[^\d.,]/.test(text.trim());
        const to = isLabel ? columnsOf(standard.sheet).indexOf('mark') : own;
        byStandard.set(standard, [...(byStandard.get(standard) ?? []), [row, to, text]]);
      }
      let next = faults;
      const changed: string[] = [];
      for (const [{ id, entry, sheet }, own] of byStandard) {
        const before = markDrafts.get(id)?.now;
        const found = entry.edit(own, kind);
        if (markDrafts.get(id)?.now !== before) changed.push(id);
        const touched = new Set(entry.cellsOf(own).map(({ enrollmentId, column }) => `${enrollmentId}/${column}`));
        next = [
          ...next.filter(
            ({ itemId, enrollmentId, column }) => itemId !== sheet.itemId || !touched.has(`${enrollmentId}/${column}`),
          ),
          ...found.map((fault) => ({ ...fault, itemId: sheet.itemId })),
        ];
      }
      if (changed.length > 0) steps.current.push(changed);
      setFaults(next);
    },
    undo() {
      // After a reload only the drafts themselves know their steps.
      const known = standards.filter(({ id }) => (markDrafts.get(id)?.undo.length ?? 0) > 0).map(({ id }) => id);
      for (const id of steps.current.pop() ?? known.slice(0, 1)) markDrafts.undo(id);
    },
    takeComputed() {
      const taken = standards.filter(({ entry }) => entry.computedBlanks.length > 0);
      for (const { entry } of taken) entry.takeComputedForBlanks();
      steps.current.push(taken.map(({ id }) => id));
    },
    /** Lets what is typed stand over what somebody else saved meanwhile. */
    keepMine() {
      for (const { id, sheet } of standards) keepMarksOver(id, sheet);
    },
    discard() {
      for (const { id } of standards) markDrafts.discard(id);
      setFaults([]);
    },
  };
}
