import type { Day } from './day.js';

/**
 * Days that programs write when they hold no date: the zero of spreadsheet serial dates (ECMA-376 part 1, 18.17.4.1,
 * and its older neighbours) and of POSIX time. They are never a date of attendance.
 */
const placeholders = new Set([
  '1899-12-30',
  '1899-12-31',
  '1900-01-00',
  '1900-01-01',
  '1904-01-01',
  '1970-01-01',
  '1969-12-31',
]);

export function isPlaceholderDay(day: Day): boolean {
  return placeholders.has(day);
}
