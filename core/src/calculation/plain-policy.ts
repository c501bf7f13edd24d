import type { CalculationPolicy } from './policy.js';

/** What holds where no policy was ever set: all points in one pot, what is missing counts as zero. */
export const plainPolicy: CalculationPolicy = {
  method: 'totalPoints',
  categories: [],
  flags: {
    missing: 'zero',
    late: 'counts',
    incomplete: 'blocks',
    exempt: 'leaves',
    absent: 'leaves',
    collected: 'leaves',
  },
  cap: null,
  newestShare: { units: 75n, digits: 0 },
  levels: null,
};
