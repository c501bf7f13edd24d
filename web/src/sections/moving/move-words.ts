import type { MoveObstacle } from '#core/sections';
import { counted, listed } from '#contract/messages';
import type { MovePreviewRowReply, RoomReply } from '#contract/sections';
import { showDay } from '../../ui/format';

/** "25 students will sit in Knots 2, which has 24 seats." */
export function sayRoom({ staying, seats }: RoomReply, to: string): string {
  const sits = `${counted(staying, 'student')} will sit in ${to}`;
  return seats === null ? `${sits}.` : `${sits}, which has ${counted(seats, 'seat')}.`;
}

/** What becomes of one student: "from Knots 1 with 1 posted grade and 4 scores; 2 scores of other assignments left there". */
export function sayMove(row: MovePreviewRowReply, to: string): string {
  const { from, grades, scores, left, isReseated, obstacle } = row;
  if (obstacle !== null) return sayObstacle(obstacle, from, to);
  if (isReseated) return `sits in ${to} from the beginning, as nothing stands in ${from} yet`;
  const along = [
    ...(grades > 0 ? [counted(grades, 'posted grade')] : []),
    ...(scores > 0 ? [counted(scores, 'score')] : []),
  ];
  const goes = along.length === 0 ? '; nothing goes along' : ` with ${listed(along)}`;
  return `from ${from}${goes}${left > 0 ? `; ${counted(left, 'score')} of other assignments left there` : ''}`;
}

function sayObstacle(obstacle: MoveObstacle, from: string, to: string): string {
  switch (obstacle.code) {
    case 'same-section':
      return `sits in ${to} already`;
    case 'seated-there':
      return `has, or had, a seat in ${to} already`;
    case 'section-not-running':
      return `${to} runs from ${showDay(obstacle.startsOn)} to ${showDay(obstacle.endsOn)}`;
    case 'before-entered':
      return `came to ${from} on ${showDay(obstacle.enteredOn)}: choose a later day`;
    case 'withdrawn-before':
      return `left ${from} on ${showDay(obstacle.withdrawnOn)}`;
  }
}
