/** Where a value lies on the ruler, from 0 at the left to 1 at the right, and the way back. */
export interface RulerAxis {
  at(value: number): number;
  valueAt(place: number): number;
  /** Below this value the ruler is drawn narrower, as few grades lie there. */
  readonly bend: number;
}

const narrowShare = 0.2;

/**
 * A ruler from 0 to the top of a scale that gives the stretch below the lowest cut-off a fifth of its length, so that
 * the cut-offs, which crowd in the upper half, have room. It bends at the twentieth of the scale below that cut-off.
 */
export function createRulerAxis(lowestCutOff: number, top: number): RulerAxis {
  const mark = top / 20;
  const bend = Math.floor(Math.max(0, lowestCutOff - top / 50) / mark) * mark;
  if (bend / top <= narrowShare) return { bend: 0, at: (value) => value / top, valueAt: (place) => place * top };
  return {
    bend,
    at: (value) =>
      value < bend ? (value / bend) * narrowShare : narrowShare + ((value - bend) / (top - bend)) * (1 - narrowShare),
    valueAt: (place) =>
      place < narrowShare
        ? (place / narrowShare) * bend
        : bend + ((place - narrowShare) / (1 - narrowShare)) * (top - bend),
  };
}
