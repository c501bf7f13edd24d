export { countSheet, type AlikeGrades } from './count-sheet.js';
export {
  addCounts,
  isDue,
  isLacking,
  lateBy,
  noCounts,
  sheetStage,
  type SheetCounts,
  type SheetStage,
} from './sheet-state.js';
