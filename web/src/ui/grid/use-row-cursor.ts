import { useId, useRef, useState, type KeyboardEvent } from 'react';
import { areLettersOn, isScreenKey } from '../use-keys';
import { findRow } from './find-row';

interface RowCursorOptions {
  readonly rows: number;
  /** The row that is chosen; the cursor begins there. */
  readonly chosen: number;
  readonly textOf: (row: number) => string;
  readonly onReach?: ((row: number) => void) | undefined;
  readonly onOpen?: ((row: number) => void) | undefined;
  readonly onSelect?: ((row: number) => void) | undefined;
  /** Brings a row into sight. */
  readonly onShow: (row: number) => void;
}

/** How long letters belong to one search, in milliseconds. */
const pause = 1000;
const page = 15;

/**
 * A list by keyboard: arrows (and j, k) move, Enter opens, Space selects, letters find. A letter that is a key of the screen
 * stays one unless it is a capital or goes on with a search.
 */
export function useRowCursor({ rows, chosen, textOf, onReach, onOpen, onSelect, onShow }: RowCursorOptions) {
  const listId = useId();
  const [moved, setMoved] = useState({ row: chosen, from: chosen });
  // What is chosen otherwise takes the cursor along.
  const at = Math.min(rows - 1, moved.from === chosen || onReach === undefined ? moved.row : chosen);
  const typed = useRef({ text: '', until: 0 });
  const goTo = (row: number) => {
    const to = Math.max(0, Math.min(rows - 1, row));
    setMoved({ row: to, from: chosen });
    onShow(to);
    onReach?.(to);
  };
  const find = (key: string, now: number) => {
    const isGoingOn = now < typed.current.until;
    const text = (isGoingOn ? typed.current.text : '') + key;
    typed.current = { text, until: now + pause };
    const texts = Array.from({ length: rows }, (_, row) => textOf(row));
    const found = findRow(texts, text, isGoingOn ? at : at + 1);
    if (found >= 0) goTo(found);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey || rows === 0) return;
    const isSearching = event.timeStamp < typed.current.until;
    const steps: Record<string, number> = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      PageDown: at + page,
      PageUp: at - page,
      Home: 0,
      End: rows - 1,
      ...(isSearching || !areLettersOn() ? {} : { j: at + 1, k: at - 1 }),
    };
    const to = steps[event.key];
    if (to !== undefined) goTo(to);
    else if (event.key === 'Enter' && at >= 0 && onOpen) onOpen(at);
    else if (event.key === ' ' && !isSearching && at >= 0 && (onSelect ?? onOpen)) (onSelect ?? onOpen)!(at);
    else if (event.key.length === 1 && (isSearching || !isScreenKey(event.key))) find(event.key, event.timeStamp);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return {
    at,
    idOf: (row: number) => `${listId}${row}`,
    point: (row: number) => setMoved({ row, from: chosen }),
    list: {
      tabIndex: 0,
      onFocus: () => {
        if (at < 0 && rows > 0) setMoved({ row: 0, from: chosen });
      },
      onKeyDown,
      'aria-activedescendant': at >= 0 ? `${listId}${at}` : undefined,
    },
  };
}
