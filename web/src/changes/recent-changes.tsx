import { History } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
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
          className="z-40 max-h-[70vh] w-[400px] overflow-auto rounded-md border border-hairline bg-surface shadow-float"
        >
          <h2 className="px-4 pt-3 pb-1 font-bold">Your recent changes</h2>
          {isOpen && <MyChanges />}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function MyChanges() {
  const { data: changes, isPending } = useMyChanges();
  if (isPending) return <p className="px-4 pb-4 text-quiet">Loading …</p>;
  if (!changes)
    return <p className="px-4 pb-4 text-waratah">The server does not answer. Close this and open it again.</p>;
  if (changes.length === 0)
    return (
      <p className="px-4 pb-4 text-quiet">Nothing yet. What you save appears here, and can be undone from here.</p>
    );
  return <ChangeList changes={changes} showsWho={false} />;
}
