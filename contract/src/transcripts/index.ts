export {
  SealRequest,
  type GpaPolicyReply,
  type ReadinessReply,
  type ReadinessStepReply,
  type StudentReply,
  type TranscriptPeriodReply,
  type TranscriptReply,
} from './transcript-messages.js';
export { entryOfReply, replyOfEntry } from './wire-entry.js';
