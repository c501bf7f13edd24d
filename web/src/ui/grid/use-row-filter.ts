import { useMemo, useState, type ReactNode } from 'react';
import { useTextInAddress } from '../address/use-text-in-address';
import { hasWords } from '../choice/has-words';
import { textOfNode } from '../text-of-node';

interface FoundColumn<Row> {
  readonly cell: (row: Row) => ReactNode;
  readonly findBy?: (row: Row) => string;
}

/**
 * The rows that show every word of a filter, which stands in the address so that a filtered list can be linked.
 *
 * @param key where it stands there; null for a list without a filter
 */
export function useRowFilter<Row>(rows: readonly Row[], columns: readonly FoundColumn<Row>[], key: string | null) {
  const [typed, onText] = useTextInAddress(key ?? 'filter');
  const [isOpened, setOpened] = useState(false);
  const text = key === null ? '' : typed.trim();
  const shown = useMemo(
    () => (text === '' ? rows : rows.filter((row) => hasWords(textOf(row, columns), text))),
    [rows, columns, text],
  );
  return {
    shown,
    text: typed,
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
  return columns.map(({ cell, findBy }) => (findBy ? findBy(row) : textOfNode(cell(row)))).join(' ');
}
