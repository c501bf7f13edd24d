/**
 * How many letters must be put in, left out, changed or swapped with their neighbour to make one word of the other; undefined
 * where it is more than `most`.
 * Source: optimal string alignment distance, F. J. Damerau, "A technique for computer detection and correction of spelling errors" (1964).
 * @example lettersApart('harun', 'haurn', 1) // 1
 */
export function lettersApart(one: string, other: string, most: number): number | undefined {
  if (Math.abs(one.length - other.length) > most) return undefined;
  let beforeLast: number[] = [];
  let last = Array.from({ length: other.length + 1 }, (_each, at) => at);
  for (let row = 1; row <= one.length; row += 1) {
    const current = [row];
    let least = row;
    for (let column = 1; column <= other.length; column += 1) {
      const isSame = one[row - 1] === other[column - 1];
      let apart = Math.min(last[column]! + 1, current[column - 1]! + 1, last[column - 1]! + (isSame ? 0 : 1));
      if (row > 1 && column > 1 && one[row - 1] === other[column - 2] && one[row - 2] === other[column - 1])
        apart = Math.min(apart, beforeLast[column - 2]! + 1);
      current.push(apart);
      least = Math.min(least, apart);
    }
    // A swap reaches back two rows; beyond that nothing gets less than the least of a row.
    if (least > most + 1) return undefined;
    [beforeLast, last] = [last, current];
  }
  const apart = last[other.length]!;
  return apart <= most ? apart : undefined;
}
