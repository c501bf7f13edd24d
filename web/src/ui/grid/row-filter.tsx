import { ListFilter, X } from 'lucide-react';
import { showCount } from '../format';

const iconButton = 'grid size-6 place-items-center rounded text-quiet hover:bg-raised hover:text-ink';

/** Opens the filter of a grid. */
export function FilterButton({ onOpen }: { onOpen: () => void }) {
  return (
    <button type="button" aria-label="Filter" title="Filter" onClick={onOpen} className={iconButton}>
      <ListFilter size={14} aria-hidden />
    </button>
  );
}

interface RowFilterProps {
  readonly label: string;
  readonly text: string;
  readonly shown: number;
  readonly all: number;
  readonly onText: (text: string) => void;
  readonly onClose: () => void;
}

/** Words that the rows of a grid must have, and how many have them. Esc ends it. */
export function RowFilter({ label, text, shown, all, onText, onClose }: RowFilterProps) {
  return (
    <div className="flex h-9 shrink-0 items-center gap-3 border-b border-hairline px-2.5 text-[13px]">
      <input
        type="search"
        aria-label={`Filter ${label}`}
        placeholder="Beginnings of words in any column"
        autoFocus
        value={text}
        onChange={({ target }) => onText(target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Escape') return;
          event.preventDefault();
          event.stopPropagation();
          onClose();
        }}
        className="h-7 w-[min(280px,50%)] rounded border border-control bg-surface px-2"
      />
      <span role="status" className="figures text-quiet">
        {showCount(shown)} of {showCount(all)}
      </span>
      <button type="button" aria-label="End the filter" title="End the filter" onClick={onClose} className={iconButton}>
        <X size={14} aria-hidden />
      </button>
    </div>
  );
}
