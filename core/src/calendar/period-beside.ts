import { ordinalOf, yearOf, type Period } from './period.js';

/** The next period of the same kind, or with -1 the one before, over the end of a year too; undefined at either end. */
export function periodBeside<P extends Pick<Period, 'id' | 'kind' | 'startsOn'>>(
  periods: readonly P[],
  id: number,
  by: 1 | -1,
): P | undefined {
  const kind = periods.find((period) => period.id === id)?.kind;
  const alike = periods
    .filter((period) => period.kind === kind)
    .toSorted((a, b) => a.startsOn.localeCompare(b.startsOn) || a.id - b.id);
  return alike[alike.findIndex((period) => period.id === id) + by];
}

/** The period of another year that stands there as the given one stands in its own; else the first within that year, or it. */
export function periodAlike<P extends Period>(periods: readonly P[], id: number, yearId: number): P {
  const inYear = periods.filter((period) => yearOf(periods, period).id === yearId);
  const given = periods.find((period) => period.id === id);
  const isAlike = (period: P) =>
    period.kind === given?.kind && ordinalOf(periods, period) === ordinalOf(periods, given);
  return inYear.find(isAlike) ?? inYear.find(({ parentId }) => parentId !== null) ?? inYear[0]!;
}
