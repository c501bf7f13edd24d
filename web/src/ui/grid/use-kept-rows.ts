import { dequal } from 'dequal';
import { useState } from 'react';

/**
 * The rows of a list, where each row that says the same as before is the very same value as before: whatever is drawn from it
 * need not be drawn again.
 * @param rows the same array as long as nothing changes
 */
export function useKeptRows<Row>(rows: readonly Row[], keyOf: (row: Row) => string | number): readonly Row[] {
  const [shown, setShown] = useState({ rows, kept: rows });
  if (shown.rows === rows) return shown.kept;
  const kept = keptRows(rows, new Map(shown.kept.map((row) => [keyOf(row), row])), keyOf);
  setShown({ rows, kept });
  return kept;
}

/** Rows with those of before in the place of their equals. */
export function keptRows<Row>(
  rows: readonly Row[],
  before: ReadonlyMap<string | number, Row>,
  keyOf: (row: Row) => string | number,
): readonly Row[] {
  return rows.map((row) => {
    const old = before.get(keyOf(row));
    return old !== undefined && dequal(old, row) ? old : row;
  });
}
