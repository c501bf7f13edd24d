import { Dialog } from '../ui/dialog';
import { useKnownKeys } from '../ui/use-keys';
import { usePreferences } from './preferences';

/** What answers in every list and in every grid that is typed into. */
const everywhere: readonly (readonly [key: string, says: string])[] = [
  ['← ↑ → ↓', 'move in a list or a grid; with Shift they select cells'],
  ['Enter', 'open the row, edit the cell'],
  ['Space', 'select'],
  ['letters', 'find a row of a list; a capital where the letter is a key above'],
  ['Alt ← →', 'on the head of a column: its width'],
  ['Ctrl+d', 'fill the selected cells from the first row'],
  ['Esc', 'close what is innermost'],
];

/** The keys that answer on this screen. */
export function KeysDialog({ isOpen, onOpenChange }: { isOpen: boolean; onOpenChange: (isOpen: boolean) => void }) {
  const groups = useKnownKeys((state) => state.groups);
  const letterKeys = usePreferences((state) => state.letterKeys);
  const keys = [...groups.values()].flat().map(({ key, says }) => [key, says] as const);
  return (
    <Dialog isOpen={isOpen} onOpenChange={onOpenChange} title="Keys of this screen" savesAtOnce>
      <dl className="grid grid-cols-[90px_1fr] gap-y-2">
        {[...keys, ...everywhere.filter(([key]) => !keys.some(([known]) => known === key))].map(([key, says]) => (
          <div key={key} className="contents">
            <dt>
              <kbd
                className={`figures rounded border border-hairline bg-raised px-1.5 py-0.5 text-[12px] ${key.length === 1 && !letterKeys ? 'line-through' : ''}`}
              >
                {key}
              </kbd>
            </dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-4 flex items-center gap-2 border-t border-hairline pt-3">
        <input
          type="checkbox"
          checked={letterKeys}
          onChange={(event) => usePreferences.setState({ letterKeys: event.target.checked })}
          className="size-4 accent-eucalypt"
        />
        Keys of a single letter or sign answer
      </label>
    </Dialog>
  );
}
