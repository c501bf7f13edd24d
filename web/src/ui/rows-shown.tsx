import { showCount } from './format';

interface RowsShownProps {
  /** What the filter lets through, in words; empty for all. */
  readonly filter: string;
  /** The rows that are here, and how many there are altogether. */
  readonly read: { readonly rows: readonly unknown[]; readonly total: number };
  /** They answer a filter that was chosen before; how many the new one has is not known yet. */
  readonly isOlder: boolean;
  /** What to choose where only the first are here, such as "a file or an outcome". */
  readonly narrowBy: string;
  readonly onShowAll: () => void;
}

/** Above the rows of a ledger: which of them a filter lets through, and how many. */
export function RowsShown({ filter, read: { rows, total }, isOlder, narrowBy, onShowAll }: RowsShownProps) {
  return (
    <p className="border-b border-hairline px-4 py-2 text-[13px]">
      {filter === '' ? 'All rows' : filter}: <b>{isOlder ? '…' : showCount(total)}</b>
      {!isOlder && total > rows.length && (
        <span className="text-quiet">
          {' '}
          – the first {showCount(rows.length)} are here; choose {narrowBy}
        </span>
      )}
      {filter !== '' && (
        <button type="button" className="ml-3 font-semibold text-eucalypt underline" onClick={onShowAll}>
          Show all
        </button>
      )}
    </p>
  );
}
