import { History } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { Awaited } from '../shell/awaited';
import { ChangeList } from './change-list';
import { useMyChanges } from './queries';

/** What one changed last, each with its undo, wherever one is. */
export function RecentChanges() {
  const [isOpen, setIsOpen] = useState(false);
  return (
    <Popover.Root open={isOpen} onOpenChange={setIsOpen}>
      <Popover.Trigger
        aria-label="Recent changes"
        title="Recent changes"
        className="grid size-8 place-items-center rounded-md text-quiet hover:bg-raised hover:text-ink"
      >
        <History size={17} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          aria-label="Recent changes"
          className="z-40 max-h-[70vh] w-[400px] overflow-auto rounded-md border border-hairline bg-surface px-4 pt-3 pb-2 shadow-float"
        >
          <h2 className="pb-1 font-bold">Your recent changes</h2>
          {isOpen && <MyChanges />}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function MyChanges() {
  return (
    <Awaited query={useMyChanges()} waiting="Reading what you changed">
      {(changes) =>
        changes.length === 0 ? (
          <p className="text-quiet">Nothing yet. What you save appears here, and can be undone from here.</p>
        ) : (
          <div className="-mx-4">
            <ChangeList changes={changes} showsWho={false} />
          </div>
        )
      }
    </Awaited>
  );
}
