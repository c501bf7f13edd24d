import { ArrowDown, ArrowUp, Columns3 } from 'lucide-react';
import { Popover } from 'radix-ui';
import { Button } from '../button';
import type { ColumnLayout } from '#core/people';
import { arranged, movedOrder, plainLayout } from './column-layouts';

interface ColumnMenuProps {
  readonly columns: readonly { readonly id: string; readonly name: string }[];
  readonly layout: ColumnLayout;
  readonly onChange: (changes: Partial<ColumnLayout>) => void;
  readonly onReset: () => void;
}

/** Which columns a grid shows, and in which order. The first one always stays. */
export function ColumnMenu({ columns, layout, onChange, onReset }: ColumnMenuProps) {
  const movable = arranged(columns, { ...layout, hidden: [] }).slice(1);
  const ids = movable.map(({ id }) => id);
  const toggle = (id: string) =>
    onChange({
      hidden: layout.hidden.includes(id) ? layout.hidden.filter((each) => each !== id) : [...layout.hidden, id],
    });
  const mover = (name: string, id: string, by: -1 | 1) => {
    const isLast = by < 0 ? ids[0] === id : ids.at(-1) === id;
    const Icon = by < 0 ? ArrowUp : ArrowDown;
    return (
      <button
        type="button"
        aria-label={`Move ${name} ${by < 0 ? 'to the left' : 'to the right'}`}
        disabled={isLast}
        onClick={() => onChange({ order: movedOrder(ids, id, by) })}
        className="grid size-6 place-items-center rounded hover:bg-raised disabled:opacity-30"
      >
        <Icon size={13} aria-hidden />
      </button>
    );
  };
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button
          type="button"
          aria-label="Columns"
          title="Columns"
          className="grid size-6 place-items-center rounded text-quiet hover:bg-raised hover:text-ink"
        >
          <Columns3 size={14} aria-hidden />
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="z-40 w-[250px] rounded-md border border-hairline bg-surface p-3 text-[13px] shadow-float"
        >
          <h2 className="mb-1.5 font-bold">Columns</h2>
          <ul className="mb-2 max-h-[50vh] overflow-auto">
            {movable.map(({ id, name }) => (
              <li key={id} className="flex h-7 items-center gap-1">
                <label className="flex min-w-0 flex-1 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={!layout.hidden.includes(id)}
                    onChange={() => toggle(id)}
                    className="size-3.5 accent-eucalypt"
                  />
                  <span className="truncate">{name}</span>
                </label>
                {mover(name, id, -1)}
                {mover(name, id, 1)}
              </li>
            ))}
          </ul>
          <Button disabled={layout === plainLayout} onClick={onReset}>
            Reset columns
          </Button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
