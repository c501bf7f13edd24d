/** What rows say, by a number of theirs: in the order of the rows, and no list for a number of which there is none. */
export function grouped<Row, Value>(
  rows: readonly Row[],
  read: (row: Row) => readonly [key: number, value: Value],
): ReadonlyMap<number, Value[]> {
  const found = new Map<number, Value[]>();
  for (const row of rows) {
    const [key, value] = read(row);
    const own = found.get(key);
    if (own) own.push(value);
    else found.set(key, [value]);
  }
  return found;
}
