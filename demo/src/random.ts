/** A stream of choices that is the same for the same seed, on every machine. */
export interface Random {
  /** A whole number from `low` to `high`, both included. */
  whole(low: number, high: number): number;
  /** True this often: 0.3 is three times in ten. */
  chance(share: number): boolean;
  pick<T>(from: readonly T[]): T;
  shuffle<T>(all: readonly T[]): T[];
  /** Around 0, mostly between -2 and 2: the sum of twelve even draws, less six. */
  bell(): number;
}

/** Mulberry32, a small generator in the public domain. */
export function createRandom(seed: number): Random {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
  const whole = (low: number, high: number) => low + Math.floor(next() * (high - low + 1));
  return {
    whole,
    chance: (share) => next() < share,
    pick: (from) => from[whole(0, from.length - 1)]!,
    shuffle(all) {
      const mixed = [...all];
      for (let at = mixed.length - 1; at > 0; at--) {
        const other = whole(0, at);
        [mixed[at], mixed[other]] = [mixed[other]!, mixed[at]!];
      }
      return mixed;
    },
    bell: () => Array.from({ length: 12 }, next).reduce((sum, draw) => sum + draw, -6),
  };
}
