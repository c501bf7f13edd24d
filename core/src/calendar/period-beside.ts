import type { Period } from './period.js';

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
