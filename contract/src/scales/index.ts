export { placeOf } from './place-of.js';
export { scaleFaultSentence } from './scale-fault-sentence.js';
export {
  BandBody,
  NewScaleRequest,
  PlaceScaleRequest,
  type PlacementReply,
  PreviewScaleRequest,
  PreviewTieRequest,
  SaveScaleRequest,
  type ScaleEffectReply,
  ScaleFactsRequest,
  type ScaleReply,
  type ScalesReply,
  type StudentEffectReply,
  TieBody,
} from './scale-messages.js';
export { bandOfBody, bodyOfBand } from './wire-band.js';
