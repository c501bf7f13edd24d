/** Fewer values say nothing of how high such values go. */
const leastValues = 5;
/** Points out of fifty, averages of grade points and fractions of one end here or below; a class that does so is rare. */
const lowestTop = 50;

/**
 * Whether values may be the grades of a class as percentages, or as levels: not fractions of one, averages of grade points,
 * or points out of something other than a hundred, which look like percentages and are none.
 * @param highestLevel null for percentages
 * @example isAsGrades([0.82, 0.9, 0.75, 0.66, 0.91], null) // false
 */
export function isAsGrades(values: readonly number[], highestLevel: number | null): boolean {
  const top = Math.max(...values);
  if (highestLevel !== null) return top <= highestLevel;
  if (top <= 1 && values.some((value) => !Number.isInteger(value))) return false;
  return values.length < leastValues || top > lowestTop;
}
