import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { Note } from '../ui/panel';

/** Courses of the draft that someone else saved meanwhile; nothing where there are none. */
export function StaleCourses({ titles, onKeep }: { titles: readonly string[]; onKeep: () => void }) {
  if (titles.length === 0) return null;
  return (
    <Note tone="blocks" title={`Someone else changed ${counted(titles.length, 'course')}`}>
      <p>{titles.join(', ')}</p>
      <Button onClick={onKeep}>Keep my changes over theirs</Button>
    </Note>
  );
}
