import { counted, type CountedThing } from '#contract/messages';
import { Button } from '../ui/button';
import { Note } from '../ui/panel';

interface StaleRowsProps {
  readonly thing: CountedThing;
  readonly titles: readonly string[];
  readonly onKeep: () => void;
}

/** Rows of the draft that someone else saved meanwhile; nothing where there are none. */
export function StaleRows({ thing, titles, onKeep }: StaleRowsProps) {
  if (titles.length === 0) return null;
  return (
    <Note tone="blocks" title={`Someone else changed ${counted(titles.length, thing)}`}>
      <p>{titles.join(', ')}</p>
      <Button onClick={onKeep}>Keep my changes over theirs</Button>
    </Note>
  );
}
