export { longestAssignmentName } from './check-assignment.js';
export { planClass } from './plan-class.js';
export {
  type AssignmentFacts,
  type Joined,
  type LedgerRow,
  type MarkFacts,
  type OurAssignment,
  type OurClass,
  type OurItem,
  type OurScore,
  type OurSectionBook,
  type OurStudent,
  type RowKind,
  type ScoreFacts,
  type TheirAssignment,
  type TheirClass,
  type TheirResult,
  type TheirTotal,
  bookKey,
  rowKinds,
} from './run-plan.js';
export {
  type LedgerOutcome,
  type RunReason,
  type RunReasonCode,
  decidingReason,
  isWriting,
  ledgerOutcomes,
  linesToWrite,
  notSent,
  runReasons,
} from './run-reasons.js';
export {
  type RowResult,
  type RunStage,
  type RunState,
  canCarryOut,
  canDiscard,
  canResume,
  canUndo,
  isUnderWay,
  rowResults,
} from './run-state.js';
export { isStillPlanned, rowKey } from './still-planned.js';
