export { scaleFaultSentence } from './scale-fault-sentence.js';
export { BandBody, SaveScaleRequest, type ScaleReply, type ScaleVersionReply } from './scale-messages.js';
