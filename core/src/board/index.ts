export { countSheet, type AlikeGrades } from './count-sheet.js';
export {
  addCounts,
  isDue,
  isLacking,
  lateBy,
  lateness,
  noCounts,
  sheetStage,
  sheetState,
  type SheetCounts,
  type SheetState,
} from './sheet-state.js';
export { totalsOf, type SheetTotals } from './sheet-totals.js';
