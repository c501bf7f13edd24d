import { addCounts, noCounts, type SheetCounts, type SheetState } from './sheet-state.js';

/** How far several sheets are together: those of a section, a teacher, a department or a school. */
export interface SheetTotals extends SheetCounts {
  /** Those that are work by now; only they are counted. */
  readonly due: number;
  readonly signedOff: number;
  /** By how much the latest of them is late, in milliseconds; 0 where none is. */
  readonly late: number;
}

export function totalsOf(sheets: readonly (SheetState & { readonly counts: SheetCounts })[]): SheetTotals {
  const due = sheets.filter((sheet) => sheet.isDue);
  return {
    ...due.reduce((sum, { counts }) => addCounts(sum, counts), noCounts),
    due: due.length,
    signedOff: due.filter(({ isOpen }) => !isOpen).length,
    late: due.reduce((latest, { late }) => Math.max(latest, late), 0),
  };
}
