import type { Day } from './day.js';

export type PeriodKind = 'year' | 'semester' | 'quarter' | 'trimester' | 'term';

/** A stretch of the school's year. Both ends belong to it. Periods nest: a quarter's parent is its semester. */
export interface Period {
  readonly id: number;
  readonly parentId: number | null;
  readonly kind: PeriodKind;
  readonly name: string;
  readonly startsOn: Day;
  readonly endsOn: Day;
}

export function isWithin(day: Day, period: Pick<Period, 'startsOn' | 'endsOn'>): boolean {
  return period.startsOn <= day && day <= period.endsOn;
}
