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

const [counted, countedAsZero, extra, notScored, leftOut, blocks, notCounted, otherScale, noCategory] =
  treatments.keys();

/** What an assignment is, as bits of one number. */
export const isExtraBit = 1;
export const isNotCountedBit = 2;

/** A policy's effects by the number of the flag, 0 for no flag. */
export type EffectTable = readonly FlagEffect[];

export function effectTable(flags: Readonly<Record<ScoreFlag, FlagEffect>>): EffectTable {
  return ['counts', ...scoreFlags.map((flag) => flags[flag])];
}

/** What `treatScore` says of every kind of score, so that a million need not be asked one by one. */
export type TreatmentTable = Uint8Array;

/** A score's place in the table: its flag, three bits of the assignment, one for no points, two for what it is out of. */
export const flagShift = 6;
export const noPointsBit = 4;
const bitsShift = 3;
const [outOfNothing, outOfLevels, outOfOther] = [0, 1, 2];

/** Beside the bits of the columns: whether the assignment's category has no weight in the policy. */
const withoutCategoryBit = 4;

/** The part of a score's place that its assignment gives. For one out of the highest level it is one less. */
export function assignmentPlace(possible: number, bits: number, hasCategory: boolean): number {
  return ((bits | (hasCategory ? 0 : withoutCategoryBit)) << bitsShift) | (possible === 0 ? outOfNothing : outOfOther);
}

/** @param isTotal whether scores count without a category, as they do where all points go into one pot */
export function treatmentTable(effects: EffectTable, outOf: number, isTotal: boolean): TreatmentTable {
  const table = new Uint8Array(effects.length << flagShift);
  for (const flag of effects.keys())
    for (let bits = 0; bits <= (isExtraBit | isNotCountedBit | withoutCategoryBit); bits++)
      for (const points of [-1, 0])
        for (const kind of [outOfNothing, outOfLevels, outOfOther]) {
          const possible = [0, outOf, outOf + 1][kind]!;
          const place = (flag << flagShift) | (bits << bitsShift) | (points < 0 ? noPointsBit : 0) | kind;
          const treatment = treatScore(points, flag, possible, bits, effects, outOf);
          const isStray =
            (bits & withoutCategoryBit) !== 0 && !isTotal && (treatment <= extra! || treatment === blocks);
          table[place] = isStray ? noCategory! : treatment;
        }
  return table;
}

/** What every level is out of, in hundredths; 0 where points are no levels. */
export function levelsOutOf(levels: LevelRule | null): number {
  return levels ? Number(unitsAt(levels.most, 2)) : 0;
}

/**
 * The number of a score's treatment. Where levels are read, what is out of anything but the highest level is from another
 * scale: it is found, whether it has points or a flag, and neither counts nor blocks. Then a flag's effect; then what has no
 * points is not scored yet, whatever the flag says; extra points only add, and so does an assignment out of 0 points.
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
  if (effect === 'leaves') return leftOut!;
  const onlyAdds = (bits & isExtraBit) !== 0 || possible === 0;
  if (outOf > 0 && (onlyAdds || possible !== outOf)) return points < 0 && flag === 0 ? notScored! : otherScale!;
  if (effect === 'blocks') return blocks!;
  if (effect === 'zero') return onlyAdds ? leftOut! : countedAsZero!;
  if (points < 0) return notScored!;
  return onlyAdds ? extra! : counted!;
}
