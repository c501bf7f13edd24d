import { useState } from 'react';

/** The rows or the columns of a grid: how many there are, and what names each wherever it stands. */
export interface Axis {
  readonly count: number;
  /** Anything beyond the last one. */
  readonly keyAt: (at: number) => string | number | undefined;
}

/** Where the cursor is, and the other corner of what is selected. */
export interface Cursor {
  readonly row: number;
  readonly column: number;
  readonly anchorRow: number;
  readonly anchorColumn: number;
}

type Key = ReturnType<Axis['keyAt']>;

/** Where the cursor was put, with the names of what is there. */
interface Put extends Cursor {
  readonly keys: Readonly<Record<keyof Cursor, Key>>;
}

/**
 * The cursor of a grid, and what is being typed at it. Rows and columns may come, go and change places under it: it goes with
 * its own, and what was begun in one that went is for no other.
 */
export function useKeptCursor(rows: Axis, columns: Axis, firstRow: number) {
  const named = (to: Cursor): Put => ({
    ...to,
    keys: {
      row: rows.keyAt(to.row),
      column: columns.keyAt(to.column),
      anchorRow: rows.keyAt(to.anchorRow),
      anchorColumn: columns.keyAt(to.anchorColumn),
    },
  });
  const [put, setPut] = useState(() => named({ row: firstRow, column: 0, anchorRow: firstRow, anchorColumn: 0 }));
  const [begun, setBegun] = useState<string | undefined>();
  const [dropped, setDropped] = useState(0);
  const row = placeOf(rows, put.row, put.keys.row);
  const column = placeOf(columns, put.column, put.keys.column);
  const isThere = row !== undefined && column !== undefined;
  const here = { row: row ?? lastBefore(rows, put.row), column: column ?? lastBefore(columns, put.column) };
  const anchorRow = placeOf(rows, put.anchorRow, put.keys.anchorRow);
  const anchorColumn = placeOf(columns, put.anchorColumn, put.keys.anchorColumn);
  const isAnchored = isThere && anchorRow !== undefined && anchorColumn !== undefined;
  const cursor: Cursor = isAnchored
    ? { ...here, anchorRow, anchorColumn }
    : { ...here, anchorRow: here.row, anchorColumn: here.column };
  if (!isAnchored) setPut(named(cursor));
  if (!isThere && begun !== undefined) {
    setBegun(undefined);
    setDropped(dropped + 1);
  }
  return {
    cursor,
    setCursor: (to: Cursor) => setPut(named(to)),
    /** What the field under the cursor began with; undefined where nothing is being typed. */
    editing: isThere ? begun : undefined,
    setEditing: setBegun,
    /** Whether the cursor went along with its row since it was put. */
    hasMoved: cursor.row !== put.row,
    /** How often what was begun went with its row or column. */
    dropped,
  };
}

/** Where what is called so stands now; undefined where it went. */
function placeOf({ count, keyAt }: Axis, at: number, key: Key): number | undefined {
  if (keyAt(at) === key && at < Math.max(1, count)) return at;
  for (let other = 0; other < count; other++) if (keyAt(other) === key) return other;
  return undefined;
}

function lastBefore({ count }: Axis, at: number): number {
  return Math.min(at, Math.max(0, count - 1));
}
