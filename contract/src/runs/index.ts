export {
  DefaultCategoryRequest,
  type LastRunReply,
  type LedgerCountsReply,
  NightlyRequest,
  PickRequest,
  PlanRunRequest,
  type ReasonCountReply,
  type RunClassReply,
  type RunLetterReply,
  type RunReply,
  type RunRowReply,
  RunRowsQuery,
  type RunRowsReply,
  type RunSummaryReply,
  type RunsReply,
} from './run-messages.js';
export { reasonSentence, reasonWords } from './run-reason-words.js';
