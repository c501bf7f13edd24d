import { agreeing, counted } from '#contract/messages';
import { useEffect, useId, useMemo, useRef, type ClipboardEvent, type KeyboardEvent } from 'react';
import { toast } from 'sonner';
import { useViewOnly } from '../view-only';
import { areLettersOn } from '../use-keys';
import { useLatest } from '../use-latest';
import { useKeptCursor, type Axis } from './use-kept-cursor';
import {
  blockOfRange,
  blockOfText,
  cellsOf,
  textsOfBlock,
  textsOfFillDown,
  type CellRange,
  type CellText,
} from './cell-range';

/** How texts come to cells: an empty cell of a pasted block may mean something else than one that was emptied. */
export type EditKind = 'typed' | 'pasted' | 'filled' | 'emptied';

interface CellCursorOptions {
  readonly rows: number;
  /** What names a row wherever it stands. */
  readonly keyAt: Axis['keyAt'];
  readonly columns: number;
  readonly columnKeyAt: Axis['keyAt'];
  readonly firstRow?: number;
  readonly isReadOnly?: boolean;
  readonly textAt: (row: number, column: number) => string;
  /** Takes texts for cells, all of them in one step; those beyond the edges are among them only where the grid grows. */
  readonly onEdit: (texts: readonly CellText[], kind: EditKind) => void;
  /** Whether rows pasted below the last one become rows of the grid. */
  readonly isGrowing?: boolean;
  /** A pasted block that means something as a whole; true where it was taken and goes into no cell. */
  readonly takesBlock?: (block: readonly (readonly string[])[]) => boolean;
  /** Brings a cell into sight. */
  readonly onReach: (row: number, column: number) => void;
  /** Whether a key begins to type over the cell with the cursor; any other is left to the screen. All do but those of the frame. */
  readonly isBeginning?: (key: string, row: number, column: number) => boolean;
  /** Whether a key is a whole entry by itself: it is taken at once, and the cursor goes down. */
  readonly isWhole?: (key: string, row: number, column: number) => boolean;
  readonly onSpace?: (range: CellRange, row: number) => void;
  /** A cell that is shown like the others and takes no text. */
  readonly isLocked?: (row: number, column: number) => boolean;
  /** A row that Enter passes over. */
  readonly isPassed?: (row: number) => boolean;
}

/** What the cursor means to one row; the very same value for all rows that it leaves alone. */
export interface RowCursor {
  /** The column of the cursor; −1 in another row. */
  readonly column: number;
  /** The columns selected, both included; none where `from` is above `to`. */
  readonly from: number;
  readonly to: number;
  /** What the field under the cursor began with while it is edited. */
  readonly editing: string | undefined;
}

/** What the cells of a grid call; the same functions as long as the grid is shown. */
export interface CellActions {
  readonly choose: (row: number, column: number, keepsAnchor: boolean) => void;
  readonly begin: (row: number, column: number) => void;
  /** Takes what was typed under the cursor and moves on; "leave" lets the focus go where it went. */
  readonly take: (text: string, then: 'down' | 'right' | 'stay' | 'leave') => void;
  readonly cancel: () => void;
  readonly idOf: (row: number, column: number) => string;
}

const elsewhere: RowCursor = { column: -1, from: 0, to: -1, editing: undefined };

const steps: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-15, 0],
  PageDown: [15, 0],
};

/** Rows by letter, where a letter begins no cell. */
const letterSteps: typeof steps = { j: [1, 0], k: [-1, 0] };

/**
 * A grid as in a spreadsheet: arrows move, typing replaces, Enter edits, a block is pasted, Ctrl+D fills down. The focus stays on
 * the element that scrolls, which names the cell with the cursor to whoever does not see it.
 */
export function useCellCursor(options: CellCursorOptions) {
  const { rows, columns, firstRow = 0, isGrowing = false, textAt } = options;
  const gridId = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const { cursor, setCursor, editing, setEditing, hasMoved, dropped } = useKeptCursor(
    { count: rows, keyAt: options.keyAt },
    { count: columns, keyAt: options.columnKeyAt },
    firstRow,
  );
  // The field that had the focus went with its row.
  useEffect(() => {
    if (dropped > 0) scroller.current?.focus({ preventScroll: true });
  }, [dropped]);
  const latestReach = useLatest(options.onReach);
  useEffect(() => {
    if (hasMoved) latestReach.current(cursor.row, cursor.column);
  }, [hasMoved, cursor.row, cursor.column, latestReach]);
  const range: CellRange = {
    fromRow: Math.min(cursor.row, cursor.anchorRow),
    toRow: Math.max(cursor.row, cursor.anchorRow),
    fromColumn: Math.min(cursor.column, cursor.anchorColumn),
    toColumn: Math.max(cursor.column, cursor.anchorColumn),
  };
  const { isViewOnly } = useViewOnly();
  const isReadOnly = isViewOnly || (options.isReadOnly ?? false);
  const isLocked = (row: number, column: number) => isReadOnly || (options.isLocked?.(row, column) ?? false);
  const edit = (texts: readonly CellText[], kind: EditKind) => {
    const grows = isGrowing && kind === 'pasted';
    const inside = texts.filter(([row, column]) => (row < rows || grows) && column < columns && !isLocked(row, column));
    if (inside.length > 0) options.onEdit(inside, kind);
  };
  const moveTo = (row: number, column: number, keepsAnchor = false, isFocusing = true) => {
    const to = {
      row: Math.min(rows - 1, Math.max(0, row)),
      column: Math.min(columns - 1, Math.max(0, column)),
    };
    setCursor({
      ...to,
      anchorRow: keepsAnchor ? cursor.anchorRow : to.row,
      anchorColumn: keepsAnchor ? cursor.anchorColumn : to.column,
    });
    setEditing(undefined);
    options.onReach(to.row, to.column);
    if (isFocusing) scroller.current?.focus({ preventScroll: true });
  };
  /** The next row that Enter does not pass over; the same one where there is none. */
  const rowBelow = (from: number) => {
    let row = from + 1;
    while (row < rows && options.isPassed?.(row)) row++;
    return row < rows ? row : from;
  };
  const latest = useLatest({
    choose: moveTo,
    begin: (row: number, column: number) => !isLocked(row, column) && setEditing(textAt(row, column)),
    take: (text: string, then: 'down' | 'right' | 'stay' | 'leave') => {
      const { row, column } = cursor;
      if (editing === undefined) return;
      if (text !== textAt(row, column)) edit([[row, column, text]], 'typed');
      moveTo(then === 'down' ? rowBelow(row) : row, column + (then === 'right' ? 1 : 0), false, then !== 'leave');
    },
    cancel: () => moveTo(cursor.row, cursor.column),
  });
  const actions = useMemo(
    (): CellActions => ({
      choose: (row, column, keepsAnchor) => latest.current.choose(row, column, keepsAnchor),
      begin: (row, column) => latest.current.begin(row, column),
      take: (text, then) => latest.current.take(text, then),
      cancel: () => latest.current.cancel(),
      idOf: (row, column) => `${gridId}${row}/${column}`,
    }),
    [gridId, latest],
  );
  const onKeyDown = (event: KeyboardEvent) => {
    if (editing !== undefined || event.target !== scroller.current) return;
    const { row, column } = cursor;
    const isControl = event.ctrlKey || event.metaKey;
    const canType = !isLocked(row, column);
    const begins = (key: string) => canType && (options.isBeginning ?? isNoKeyOfFrame)(key, row, column);
    const step = steps[event.key] ?? (begins(event.key) || !areLettersOn() ? undefined : letterSteps[event.key]);
    if (step && !event.altKey && !(isControl && event.key.length === 1))
      moveTo(row + step[0], column + step[1], event.shiftKey);
    else if (event.key === 'Tab') {
      const next = column + (event.shiftKey ? -1 : 1);
      if (next < 0 || next >= columns) return;
      moveTo(row, next);
    } else if (event.key === 'Home') moveTo(isControl ? 0 : row, 0, event.shiftKey);
    else if (event.key === 'End') moveTo(isControl ? rows - 1 : row, columns - 1, event.shiftKey);
    else if (event.key === 'Enter' || event.key === 'F2') actions.begin(row, column);
    else if (event.key === 'Delete' || event.key === 'Backspace')
      edit(
        cellsOf(range).map(([at, of]) => [at, of, '']),
        'emptied',
      );
    else if (isControl && event.key.toLowerCase() === 'd') edit(textsOfFillDown(range, textAt), 'filled');
    else if (event.key === ' ' && options.onSpace) options.onSpace(range, row);
    else if (canType && !isControl && !event.altKey && options.isWhole?.(event.key, row, column)) {
      edit([[row, column, event.key]], 'typed');
      moveTo(rowBelow(row), column);
    } else if (event.key.length === 1 && !isControl && !event.altKey && begins(event.key)) setEditing(event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return {
    cursor,
    range,
    actions,
    moveTo,
    /** What the cursor means to a row. */
    inRow(row: number): RowCursor {
      if (row < range.fromRow || row > range.toRow) return elsewhere;
      const isHere = row === cursor.row;
      return {
        column: isHere ? cursor.column : -1,
        from: range.fromColumn,
        to: range.toColumn,
        editing: isHere ? editing : undefined,
      };
    },
    /** For the element that scrolls and has the focus. */
    grid: {
      ref: scroller,
      role: 'grid',
      tabIndex: 0,
      'aria-rowcount': rows + 1,
      'aria-readonly': isReadOnly,
      'aria-multiselectable': true,
      'aria-activedescendant': rows > 0 ? actions.idOf(cursor.row, cursor.column) : undefined,
      onKeyDown,
      onCopy: (event: ClipboardEvent) => {
        if (editing !== undefined) return;
        event.preventDefault();
        event.clipboardData.setData('text/plain', blockOfRange(range, textAt));
      },
      onPaste: (event: ClipboardEvent) => {
        if (editing !== undefined) return;
        event.preventDefault();
        const block = blockOfText(event.clipboardData.getData('text/plain'));
        if (isReadOnly) return void toast.warning('This is read only: nothing was pasted.');
        if (options.takesBlock?.(block)) return;
        edit(textsOfBlock(range, block), 'pasted');
        if (!isGrowing) tellBeyond(range.fromRow + block.length - rows, 'pasted row', 'below the last row');
        const widest = Math.max(...block.map((cells) => cells.length));
        tellBeyond(range.fromColumn + widest - columns, 'pasted column', 'beyond the last column');
      },
    },
  } as const;
}

/** Says how much of a pasted block found no cell to go to. */
function tellBeyond(count: number, what: 'pasted row' | 'pasted column', where: string): void {
  if (count > 0) toast.warning(`${counted(count, what)} ${where} ${agreeing(count, 'was')} skipped.`);
}

function isNoKeyOfFrame(key: string): boolean {
  return !'/?[]'.includes(key);
}
