export { findHeaderRow } from './find-header-row.js';
export { checkChoice, readingOf, type FileChoice, type FileReading, type GradeColumn } from './file-reading.js';
export { canChooseColumns, canDiscardFile, fileStatuses, isFileUnderWay, type FileStatus } from './file-status.js';
export { findPlace, RowsByPlace } from './find-place.js';
export {
  countOutcomes,
  isLeftOut,
  isWritten,
  noOutcomes,
  planFileRow,
  rowOutcomes,
  type FilePlan,
  type PlannedValue,
  type RowOutcome,
} from './plan-file-row.js';
export {
  proposeGradeColumns,
  proposeIdColumn,
  proposeSectionColumn,
  type ColumnProposal,
  type FileProposals,
} from './propose-columns.js';
export { foldKey, type Directory, type Roster } from './roster.js';
export { sectionsByName } from './section-names.js';
export { longestAssignmentName } from './check-assignment.js';
export { planClass } from './plan-class.js';
export * from './run-plan.js';
export {
  decidingReason,
  isWriting,
  linesToWrite,
  notSent,
  ledgerOutcomes,
  runReasons,
  type LedgerOutcome,
  type RunReason,
  type RunReasonCode,
} from './run-reasons.js';
export {
  canCarryOut,
  canDiscard,
  canResume,
  canUndo,
  isUnderWay,
  rowResults,
  type RowResult,
  type RunStage,
  type RunState,
} from './run-state.js';
export { isStillPlanned, rowKey } from './still-planned.js';
export { isNightlyDue } from './is-nightly-due.js';
