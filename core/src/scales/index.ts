export type { Band } from './band.js';
export { bandEdges } from './band-edges.js';
export { checkScale, type ScaleFault, type ScaleFaultCode } from './check-scale.js';
export { findBand, type Precision } from './find-band.js';
export { moveCutOff } from './move-cut-off.js';
export { orderBands } from './order-bands.js';
export { readBands } from './read-bands.js';
export { countByBand, countByWholePercent, countJustBelow, draftEffect, type DraftEffect } from './tally.js';
