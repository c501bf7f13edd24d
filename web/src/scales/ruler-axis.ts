/** Where a percent lies on the ruler, from 0 at the left to 1 at the right, and the way back. */
export interface RulerAxis {
  at(percent: number): number;
  percentAt(place: number): number;
  /** Below this percent the ruler is drawn narrower, as few grades lie there. */
  readonly bend: number;
}

const narrowShare = 0.2;

/**
 * A ruler from 0 to 100 that gives the stretch below the lowest cut-off a fifth of its length, so that the cut-offs,
 * which crowd in the upper half, have room. It bends at the multiple of five below that cut-off.
 */
export function createRulerAxis(lowestCutOff: number): RulerAxis {
  const bend = Math.floor(Math.max(0, lowestCutOff - 2) / 5) * 5;
  if (bend / 100 <= narrowShare) return { bend: 0, at: (percent) => percent / 100, percentAt: (place) => place * 100 };
  return {
    bend,
    at: (percent) =>
      percent < bend
        ? (percent / bend) * narrowShare
        : narrowShare + ((percent - bend) / (100 - bend)) * (1 - narrowShare),
    percentAt: (place) =>
      place < narrowShare
        ? (place / narrowShare) * bend
        : bend + ((place - narrowShare) / (1 - narrowShare)) * (100 - bend),
  };
}
