/**
 * The number of the column of an address, 1 for A.
 *
 * @example columnNumber('AB12') // 28
 */
export function columnNumber(address: string): number {
  let number = 0;
  for (const letter of /^[A-Z]*/.exec(address)![0]) number = number * 26 + letter.charCodeAt(0) - 64;
  return number;
}

/**
 * The letters of a column, A for 1.
 *
 * @example columnLetters(28) // 'AB'
 */
export function columnLetters(number: number): string {
  const first = Math.floor((number - 1) / 26);
  const last = String.fromCharCode(65 + ((number - 1) % 26));
  return first === 0 ? last : columnLetters(first) + last;
}
