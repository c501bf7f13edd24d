import type { Day } from './day.js';

export const periodKinds = ['year', 'semester', 'quarter', 'trimester', 'term'] as const;
export type PeriodKind = (typeof periodKinds)[number];

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

/** The year that a period lies in; a year lies in itself. */
export function yearOf<P extends Period>(periods: readonly P[], period: P): P {
  const parent = periods.find(({ id }) => id === period.parentId);
  return parent ? yearOf(periods, parent) : period;
}

/** Whether a period is another one or lies in it, by its parents. */
export function liesIn<P extends Period>(periods: readonly P[], period: P, outer: Pick<P, 'id'>): boolean {
  if (period.id === outer.id) return true;
  const parent = periods.find(({ id }) => id === period.parentId);
  return parent !== undefined && liesIn(periods, parent, outer);
}

/** The periods of a kind inside another one, in order of time. */
export function periodsWithin<P extends Period>(periods: readonly P[], outer: P, kind: PeriodKind): P[] {
  return periods
    .filter((period) => period.kind === kind && liesIn(periods, period, outer))
    .toSorted((a, b) => (a.startsOn < b.startsOn ? -1 : 1));
}

/** A period's place among those of its kind in its year, from 1: Quarter 2 is 2. */
export function ordinalOf<P extends Period>(periods: readonly P[], period: P): number {
  return periodsWithin(periods, yearOf(periods, period), period.kind).findIndex(({ id }) => id === period.id) + 1;
}
