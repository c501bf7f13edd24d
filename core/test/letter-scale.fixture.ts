import { decimalOrThrow } from '#core/numbers';
import type { CutBand } from '../src/scales/band.js';

/**
 * Letter, lowest percent and grade points of the usual conversion to a 4.0 scale.
 * Source: College Board, "How to Convert Your GPA to a 4.0 Scale" (from memory). The bottom band starts at 0.
 */
const rows = `A+ 97 4.0, A 93 4.0, A- 90 3.7, B+ 87 3.3, B 83 3.0, B- 80 2.7, C+ 77 2.3, C 73 2.0, C- 70 1.7, D+ 67 1.3, D 65 1.0, F 0 0.0`;

export const letterBands: readonly CutBand[] = rows.split(', ').map((row) => {
  const [label, lowest, points] = row.split(' ') as [string, string, string];
  const passes = label !== 'F';
  return {
    label,
    lowest: decimalOrThrow(lowest),
    points: decimalOrThrow(points),
    passes,
    earnsCredit: passes,
    descriptor: '',
    isOff: false,
  };
});
