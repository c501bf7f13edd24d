export {
  AddAssignmentRequest,
  AssignmentBody,
  ChangeAssignmentRequest,
  SaveScoresRequest,
  ScoreChangeBody,
  type AssignmentReply,
  type BookReply,
  type BookStudentReply,
  type ScoreReply,
} from './book-messages.js';
export { policyFaultSentence, scoreFaultSentence } from './policy-fault-sentence.js';
export {
  CategoryBody,
  CategoryShareBody,
  CopyPolicyRequest,
  PolicyBody,
  PreviewPolicyRequest,
  RemovePolicyRequest,
  SaveCategoriesRequest,
  SavePolicyRequest,
  type BookSummaryReply,
  type CalculationReply,
  type CategoryReply,
  type DifferingReply,
  type PolicyEffectReply,
  type ValueEffectReply,
  type PolicyFaultReply,
  type PolicyReply,
  type RecalculationReply,
} from './policy-messages.js';
export { bodyOfPolicy, bookScore, policyOfBody, scoreKey } from './wire-policy.js';
