export type { Band } from './band.js';
export { bandEdges, type BandEdge } from './band-edges.js';
export { checkScale, type ScaleFault, type ScaleFaultCode } from './check-scale.js';
export { findBand, type FoundBand, type Precision } from './find-band.js';
export { moveCutOff } from './move-cut-off.js';
export { orderBands } from './order-bands.js';
export { readBands, type ReadBands, type TypedBand } from './read-bands.js';
export {
  countByBand,
  countByWholePercent,
  countJustBelow,
  draftEffect,
  type DraftEffect,
  type PercentTally,
} from './tally.js';
