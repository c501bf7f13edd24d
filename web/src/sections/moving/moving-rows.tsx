import type { ReactNode } from 'react';
import { isOverfull } from '#core/sections';
import type { MovePreviewRowReply, RoomReply } from '#contract/sections';
import { useInPeopleOrder } from '../../ui/people-order';
import { sayMove, sayRoom } from './move-words';

interface MovingRowsProps {
  readonly to: string;
  readonly rows: readonly MovePreviewRowReply[];
  readonly room: RoomReply;
  /** They answer what was chosen before. */
  readonly isOlder: boolean;
  /** What is so for all of them. */
  readonly children: ReactNode;
}

/** Who comes to a section, with what, and whether there is room for all of them. */
export function MovingRows({ to, rows, room, isOlder, children }: MovingRowsProps) {
  const inOrder = useInPeopleOrder();
  const isOver = isOverfull(room.staying, room.seats);
  return (
    <div className={`mt-4 ${isOlder ? 'opacity-60' : ''}`}>
      <p className="mb-1">
        {children} <span className={isOver ? 'font-semibold text-wattle' : ''}>{sayRoom(room, to)}</span>
      </p>
      {rows.length === 0 && <p className="text-quiet">No student is left to move.</p>}
      <ul tabIndex={0} className="max-h-[36vh] divide-y divide-hairline overflow-auto" aria-label="What goes along">
        {inOrder(rows, 'student').map((row) => (
          <li key={row.enrollmentId} className="flex gap-3 py-1.5 text-[13px]">
            <b className="w-[180px] shrink-0 font-semibold">{row.student}</b>
            <span className={row.obstacle === null ? '' : 'text-waratah'}>{sayMove(row, to)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
