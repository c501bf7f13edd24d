export { findHeaderRow } from './find-header-row.js';
export { planImport, rowOutcomes, type FileRow, type PlannedRow, type RowOutcome } from './plan-import.js';
export { proposeGradeColumn, proposeIdColumn, type ColumnReason } from './propose-columns.js';
export { foldKey, type Directory, type RosterEntry } from './roster.js';
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
