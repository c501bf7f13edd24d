const [tab, lineBreak, minus, nought] = [9, 10, 45, 48];

/**
 * The columns of PostgreSQL's text format, for rows of nothing but whole numbers and no nulls: byte by byte, as making a
 * text of each of ten million fields would take far longer.
 * @param width how many columns a row has
 */
export function readIntegers(rows: Uint8Array, width: number): Int32Array[] {
  let length = 0;
  for (let at = rows.indexOf(lineBreak); at !== -1; at = rows.indexOf(lineBreak, at + 1)) length++;
  const columns = Array.from({ length: width }, () => new Int32Array(length));
  let at = 0;
  for (let row = 0; row < length; row++) {
    for (const column of columns) {
      const isNegative = rows[at] === minus;
      if (isNegative) at++;
      let value = 0;
      for (; rows[at] !== tab && rows[at] !== lineBreak; at++) value = value * 10 + rows[at]! - nought;
      column[row] = isNegative ? -value : value;
      at++;
    }
  }
  return columns;
}
