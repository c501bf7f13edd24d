import type { AssignmentReply } from '#contract/calculation';
import { showDay } from '../../ui/format';
import { scoreWidth } from './book-layout';

interface AssignmentHeadProps {
  readonly assignment: AssignmentReply;
  readonly ariaColumn: number;
  readonly onOpen: () => void;
}

/** The head of an assignment's column: its name, what it is out of, and what is special about it. */
export function AssignmentHead({ assignment, ariaColumn, onOpen }: AssignmentHeadProps) {
  const { name, possible, dueOn, isExtra, isCounted, isPublished, givenTo } = assignment;
  const notes = [
    isExtra && 'extra',
    !isCounted && 'not counted',
    !isPublished && 'not published',
    givenTo && `for ${givenTo.length}`,
  ].filter(Boolean);
  return (
    <div role="columnheader" aria-colindex={ariaColumn} style={{ width: scoreWidth }} className="flex shrink-0">
      <button
        type="button"
        tabIndex={-1}
        onClick={onOpen}
        title={[name, `due ${showDay(dueOn)}`, `out of ${possible}`, ...notes].join(', ')}
        className="flex w-full flex-col justify-end px-2 pb-1 text-right text-[12px] leading-tight hover:bg-raised"
      >
        <span className={`line-clamp-2 [overflow-wrap:anywhere] ${isCounted ? '' : 'text-quiet line-through'}`}>
          {name}
        </span>
        <span className="figures text-[11px] text-quiet">
          {notes.length > 0 && <i className="font-sans">{notes[0]} </i>}/{Number(possible)}
        </span>
      </button>
    </div>
  );
}
