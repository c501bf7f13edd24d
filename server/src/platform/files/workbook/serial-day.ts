const dayMilliseconds = 86_400_000;

/**
 * The day that a workbook counts as a number, year first. Where days are counted from 1900, serial 60 is 29 February 1900,
 * which never was: the numbers before it are one day later than they look. Undefined for what is no day.
 * Source: ECMA-376, part 1, 18.17.4.1.
 *
 * @example daySerial(45292, false) // '2024-01-01'
 * @example daySerial(61, false) // '1900-03-01'
 */
export function daySerial(serial: number, is1904: boolean): string | undefined {
  const days = Math.floor(serial);
  if (days < 0 || days > 2_958_465 || (!is1904 && (days === 0 || days === 60))) return undefined;
  const first = is1904 ? Date.UTC(1904, 0, 1) : Date.UTC(1899, 11, days < 60 ? 31 : 30);
  return new Date(first + days * dayMilliseconds).toISOString().slice(0, 10);
}

/**
 * The time of day of such a number, to the minute.
 *
 * @example timeSerial(0.75) // '18:00'
 */
export function timeSerial(serial: number): string {
  const minutes = Math.round((serial - Math.floor(serial)) * 1440) % 1440;
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}
