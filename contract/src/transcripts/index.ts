export {
  SealRequest,
  GpaPolicyBody,
  SaveGpaPolicyRequest,
  type GpaPolicyReply,
  type ReadinessReply,
  type ReadinessStepReply,
  type StudentReply,
  type StudentRowReply,
  type TranscriptPeriodReply,
  type TranscriptReply,
} from './transcript-messages.js';
export { entryOfReply, replyOfEntry } from './wire-entry.js';
export { bodyOfGpaPolicy, gpaPolicyOfBody } from './wire-gpa-policy.js';
