export { bandsTogether } from './bands-together.js';
export { cutBands, type Band, type CutBand } from './band.js';
export { bandOfPoints } from './band-of-points.js';
export { bandEdges } from './band-edges.js';
export { checkScale, type ScaleFault, type ScaleFaultCode, type ScaleMeaning } from './check-scale.js';
export { deriveBands, type Shift } from './derive-bands.js';
export { findBand, type Precision } from './find-band.js';
export { topOf } from './scale-top.js';
export { moveCutOff } from './move-cut-off.js';
export { orderBands } from './order-bands.js';
export { placeKey, placementsInForce, type DatedPlacement, type ScalePlace } from './placements-in-force.js';
export { readBands } from './read-bands.js';
export { readStatedScale, type StatedLine } from './read-stated-scale.js';
export {
  placementKinds,
  scaleInForce,
  type PlacementKind,
  type ScalePlacement,
  type ScaleSeeker,
} from './scale-in-force.js';
export { scaleKinds, type ScaleKind } from './scale-kind.js';
export { checkStatedEnds, endFaultRange, settleStatedEnds, type EndFault, type StatedBand } from './stated-ends.js';
export {
  countByBand,
  countJustBelow,
  draftEffect,
  histogramOf,
  justBelowOf,
  type DraftEffect,
  type Histogram,
} from './tally.js';
