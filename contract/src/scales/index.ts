export { codeFaultFields, codeFaultSentence } from './code-fault-sentence.js';
export { CodeBody, SaveCodesRequest, type CodesReply } from './code-messages.js';
export { scaleFaultSentence } from './scale-fault-sentence.js';
export {
  BandBody,
  NewScaleRequest,
  PlaceScaleRequest,
  PreviewScaleRequest,
  SaveScaleRequest,
  ScaleFactsRequest,
  TieBody,
  type PlacementReply,
  PreviewTieRequest,
  type ScaleEffectReply,
  type ScaleReply,
  type ScalesReply,
  type StudentEffectReply,
} from './scale-messages.js';
export { bandOfBody, bodyOfBand } from './wire-band.js';
export { bodyOfCode, codeOfBody } from './wire-code.js';
