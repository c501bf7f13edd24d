import { useMemo, useState } from 'react';
import { useTextInAddress } from '../address/use-text-in-address';
import { hasWords } from '../has-words';

/** How the text of a row is found: what its columns sort by, or are found by. */
interface FoundColumn<Row> {
  readonly sortBy?: (row: Row) => string | number;
  readonly findBy?: (row: Row) => string;
}

/**
 * The rows that have every word of a filter, which stands in the address so that a filtered list can be linked.
 *
 * @param key where it stands there; null for a list without a filter
 */
export function useRowFilter<Row>(rows: readonly Row[], columns: readonly FoundColumn<Row>[], key: string | null) {
  const [typed, onText] = useTextInAddress(key ?? 'filter');
  const [isOpened, setOpened] = useState(false);
  const text = key === null ? '' : typed;
  const shown = useMemo(
    () => (text.trim() === '' ? rows : rows.filter((row) => hasWords(textOf(row, columns), text))),
    [rows, columns, text],
  );
  return {
    shown,
    text,
    isOpen: key !== null && (isOpened || text !== ''),
    onText,
    open: () => setOpened(true),
    close: () => {
      setOpened(false);
      onText('');
    },
  };
}

function textOf<Row>(row: Row, columns: readonly FoundColumn<Row>[]): string {
  return columns.map(({ sortBy, findBy }) => (findBy ?? sortBy)?.(row) ?? '').join(' ');
}
