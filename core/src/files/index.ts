export { type FileChoice, type FileReading, type GradeColumn, checkChoice, readingOf } from './file-reading.js';
export {
  type FileStatus,
  canChooseColumns,
  canDiscardFile,
  doesFileWait,
  fileStatuses,
  isFileUnderWay,
} from './file-status.js';
export { findHeaderRow, firstRowOfTable, leadingRows } from './find-header-row.js';
export { RowsByPlace, findPlace } from './find-place.js';
export {
  type FilePlan,
  type PlannedValue,
  type RowOutcome,
  countOutcomes,
  isLeftOut,
  isWritten,
  noOutcomes,
  planFileRow,
  rowOutcomes,
} from './plan-file-row.js';
export {
  type ColumnDoubt,
  type ColumnProposal,
  type FileProposals,
  proposeIdColumn,
  proposeSectionColumn,
  tellsSectionsApart,
} from './propose-columns.js';
export { type NamedPeriods, proposeGradeColumns } from './propose-grade-columns.js';
export { exportedDigits } from './read-exported-percent.js';
export { type Directory, type Roster, foldKey } from './roster.js';
export { sectionsByName } from './section-names.js';
