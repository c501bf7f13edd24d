import { decimalOrThrow } from '#core/numbers';
import type { BookScore, CalculationPolicy, CategoryShare, LevelRule } from '../src/calculation/index.js';

/** Common practice: assignments 50 %, quizzes 30 %, tests 20 %; missing counts as zero, exempt leaves. */
export const usualPolicy: CalculationPolicy = {
  method: 'categoryPoints',
  categories: [share(1, '50'), share(2, '30'), share(3, '20')],
  flags: {
    missing: 'zero',
    late: 'counts',
    incomplete: 'blocks',
    exempt: 'leaves',
    absent: 'leaves',
    collected: 'leaves',
  },
  cap: null,
  newestShare: decimalOrThrow('75'),
  levels: null,
};

/** Common practice: levels from 0 to 4, three meets and four exceeds. */
export const usualLevels: LevelRule = {
  most: decimalOrThrow('4'),
  meets: decimalOrThrow('3'),
  exceeds: decimalOrThrow('4'),
  evidence: 1,
};

export function share(categoryId: number, weight: string, more: Partial<CategoryShare> = {}): CategoryShare {
  return { categoryId, weight: decimalOrThrow(weight), dropLowest: 0, cap: null, ...more };
}

let assignmentId = 0;

/** A score written as in a margin: "18/20" in category 1 unless another is named. */
export function score(written: string, more: Partial<BookScore> = {}): BookScore {
  const [points, possible] = written.split('/');
  return {
    assignmentId: ++assignmentId,
    categoryId: 1,
    points: points === '' ? null : decimalOrThrow(points!),
    possible: decimalOrThrow(possible!),
    flag: null,
    isExtra: false,
    isCounted: true,
    ...more,
  };
}
