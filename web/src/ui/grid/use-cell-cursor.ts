import { toast } from 'sonner';
import { plural } from '../format';
import { useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import {
  blockOfRange,
  blockOfText,
  cellsOf,
  textsOfBlock,
  textsOfFillDown,
  type CellRange,
  type CellText,
} from './cell-range';

interface CellCursorOptions {
  readonly rows: number;
  readonly columns: number;
  readonly firstRow?: number;
  readonly isReadOnly?: boolean;
  readonly textAt: (row: number, column: number) => string;
  /** Takes texts for cells, all of them in one step; those beyond the edges have been left out. */
  readonly onEdit: (texts: readonly CellText[]) => void;
  /** Brings a cell into sight. */
  readonly onReach: (row: number, column: number) => void;
  /** Whether a key begins to type over a cell; any other is left to the screen. All do but those of the frame. */
  readonly isBeginning?: (key: string) => boolean;
  readonly onSpace?: (range: CellRange, row: number) => void;
}

/** Where the cursor is, and the other corner of what is chosen. */
interface Cursor {
  readonly row: number;
  readonly column: number;
  readonly anchorRow: number;
  readonly anchorColumn: number;
}

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

/** A grid as in a spreadsheet: arrows move, typing replaces, Enter edits, a block is pasted, Ctrl+D fills down. */
export function useCellCursor(options: CellCursorOptions) {
  const { rows, columns, firstRow = 0, isReadOnly = false, textAt, onEdit, onReach, onSpace } = options;
  const isBeginning = options.isBeginning ?? isNoKeyOfFrame;
  const scroller = useRef<HTMLDivElement>(null);
  const [cursor, setCursor] = useState<Cursor>({ row: firstRow, column: 0, anchorRow: firstRow, anchorColumn: 0 });
  const [editing, setEditing] = useState<string | undefined>();
  const range: CellRange = {
    fromRow: Math.min(cursor.row, cursor.anchorRow),
    toRow: Math.max(cursor.row, cursor.anchorRow),
    fromColumn: Math.min(cursor.column, cursor.anchorColumn),
    toColumn: Math.max(cursor.column, cursor.anchorColumn),
  };
  const edit = (texts: readonly CellText[]) => {
    const inside = texts.filter(([row, column]) => row < rows && column < columns);
    if (!isReadOnly && inside.length > 0) onEdit(inside);
  };
  const moveTo = (row: number, column: number, keepsAnchor = false) => {
    const to = {
      row: Math.min(rows - 1, Math.max(0, row)),
      column: Math.min(columns - 1, Math.max(0, column)),
    };
    setCursor((before) => ({
      ...to,
      anchorRow: keepsAnchor ? before.anchorRow : to.row,
      anchorColumn: keepsAnchor ? before.anchorColumn : to.column,
    }));
    setEditing(undefined);
    onReach(to.row, to.column);
    scroller.current?.focus({ preventScroll: true });
  };
  const begin = (text: string) => !isReadOnly && setEditing(text);
  const onKeyDown = (event: KeyboardEvent) => {
    if (editing !== undefined || event.target !== scroller.current) return;
    const { row, column } = cursor;
    const isControl = event.ctrlKey || event.metaKey;
    const step = steps[event.key] ?? (isBeginning(event.key) && !isReadOnly ? undefined : letterSteps[event.key]);
    if (step) moveTo(row + step[0], column + step[1], event.shiftKey);
    else if (event.key === 'Tab') {
      const next = column + (event.shiftKey ? -1 : 1);
      if (next < 0 || next >= columns) return;
      moveTo(row, next);
    } else if (event.key === 'Home') moveTo(isControl ? 0 : row, 0, event.shiftKey);
    else if (event.key === 'End') moveTo(isControl ? rows - 1 : row, columns - 1, event.shiftKey);
    else if (event.key === 'Enter' || event.key === 'F2') begin(textAt(row, column));
    else if (event.key === 'Delete' || event.key === 'Backspace') edit(cellsOf(range).map(([at, of]) => [at, of, '']));
    else if (isControl && event.key.toLowerCase() === 'd') edit(textsOfFillDown(range, textAt));
    else if (event.key === ' ' && onSpace) onSpace(range, row);
    else if (event.key.length === 1 && !isControl && !event.altKey && !isReadOnly && isBeginning(event.key))
      begin(event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return {
    cursor,
    range,
    /** What the field under the cursor began with while it is edited. */
    editing,
    begin,
    moveTo,
    /** Takes what was typed under the cursor and moves on. */
    take(text: string, then: 'down' | 'right' | 'stay') {
      const { row, column } = cursor;
      if (text !== textAt(row, column)) edit([[row, column, text]]);
      moveTo(row + (then === 'down' ? 1 : 0), column + (then === 'right' ? 1 : 0));
    },
    isChosen: (row: number, column: number) =>
      row >= range.fromRow && row <= range.toRow && column >= range.fromColumn && column <= range.toColumn,
    isAt: (row: number, column: number) => row === cursor.row && column === cursor.column,
    /** For the element that scrolls and has the focus. */
    grid: {
      ref: scroller,
      role: 'grid',
      tabIndex: 0,
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
        edit(textsOfBlock(range, block));
        tellRowsBeyond(range.fromRow + block.length - rows);
      },
    },
  } as const;
}

/** Says how many rows of a pasted block found no row to go to. */
function tellRowsBeyond(count: number): void {
  if (count > 0)
    toast.warning(`${plural(count, 'pasted row')} below the last row here ${count === 1 ? 'was' : 'were'} skipped.`);
}

function isNoKeyOfFrame(key: string): boolean {
  return !'/?[]'.includes(key);
}
