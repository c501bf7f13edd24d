import { scoreFlags, type FlagEffect, type LevelRule, type ScoreFlag } from './policy.js';
import { unitsAt } from '#core/numbers';

/** What becomes of a score before anything is dropped. The position is the number in columns. */
export const treatments = [
  'counted',
  'countedAsZero',
  'extra',
  'notScored',
  'leftOut',
  'blocks',
  'notCounted',
  'otherScale',
  'noCategory',
] as const;
export type Treatment = (typeof treatments)[number];

const [counted, countedAsZero, extra, notScored, leftOut, blocks, notCounted, otherScale] = treatments.keys();

/** What an assignment is, as bits of one number. */
export const isExtraBit = 1;
export const isNotCountedBit = 2;

/** A policy's effects by the number of the flag, 0 for no flag. */
export type EffectTable = readonly FlagEffect[];

export function effectTable(flags: Readonly<Record<ScoreFlag, FlagEffect>>): EffectTable {
  return ['counts', ...scoreFlags.map((flag) => flags[flag])];
}

/** What every level is out of, in hundredths; 0 where points are no levels. */
export function levelsOutOf(levels: LevelRule | null): number {
  return levels ? Number(unitsAt(levels.most, 2)) : 0;
}

/**
 * The number of a score's treatment. A flag's effect comes first; then what has no points is not scored yet, whatever the
 * flag says; extra points only add, and so does an assignment out of 0 points.
 * @param points hundredths, -1 for none
 * @param possible hundredths
 */
export function treatScore(
  points: number,
  flag: number,
  possible: number,
  bits: number,
  effects: EffectTable,
  outOf: number,
): number {
  if (bits & isNotCountedBit) return notCounted!;
  const effect = effects[flag]!;
  if (effect === 'blocks') return blocks!;
  if (effect === 'leaves') return leftOut!;
  const onlyAdds = (bits & isExtraBit) !== 0 || possible === 0;
  if (effect === 'zero') return onlyAdds ? leftOut! : countedAsZero!;
  if (points < 0) return notScored!;
  if (outOf > 0) return onlyAdds || possible !== outOf ? otherScale! : counted!;
  return onlyAdds ? extra! : counted!;
}
