import { Dialog } from '../ui/dialog';
import { useKnownKeys } from '../ui/use-keys';

/** The keys that answer on this screen. */
export function KeysDialog({ isOpen, onOpenChange }: { isOpen: boolean; onOpenChange: (isOpen: boolean) => void }) {
  const groups = useKnownKeys((state) => state.groups);
  const keys = [...groups.values()].flat();
  return (
    <Dialog isOpen={isOpen} onOpenChange={onOpenChange} title="Keys of this screen">
      <dl className="grid grid-cols-[90px_1fr] gap-y-2">
        {keys.map(({ key, says }) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="figures rounded border border-hairline bg-raised px-1.5 py-0.5 text-[12px]">{key}</kbd>
            </dt>
            <dd>{says}</dd>
          </div>
        ))}
        <dt>
          <kbd className="figures rounded border border-hairline bg-raised px-1.5 py-0.5 text-[12px]">Esc</kbd>
        </dt>
        <dd>close what is innermost</dd>
      </dl>
    </Dialog>
  );
}
