export { countSheet, lacksDate, type AlikeGrades, type CountRules } from './count-sheet.js';
export {
  isDue,
  isLacking,
  lateBy,
  noCounts,
  sheetStage,
  sheetStages,
  type SheetCounts,
  type SheetStage,
} from './sheet-state.js';
