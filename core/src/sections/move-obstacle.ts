import { isWithin, type Day } from '#core/calendar';
import type { OwnEnrollment } from './enrollment-cells.js';

/** Why a student cannot come to a section on a day. */
export type MoveObstacle =
  | { readonly code: 'same-section' }
  | { readonly code: 'seated-there' }
  | { readonly code: 'section-not-running'; readonly startsOn: Day; readonly endsOn: Day }
  /** Before or on the day on which the student came to the section that is to be left, where something hangs on the seat. */
  | { readonly code: 'before-entered'; readonly enteredOn: Day }
  | { readonly code: 'withdrawn-before'; readonly withdrawnOn: Day };

/** A section that students are to come to. */
export interface MoveTarget {
  readonly id: number;
  readonly startsOn: Day;
  readonly endsOn: Day;
  /** Who has, or had, a seat in it. */
  readonly studentIds: readonly number[];
}

/** A seat that somebody is to leave. */
export interface SeatToLeave extends OwnEnrollment {
  /** Whether anything hangs on it: a score, a grade. */
  readonly isUsed: boolean;
}

/**
 * Whether a seat itself becomes one of the new section: the student comes to that one as soon as to the old one, and nothing of
 * them stands there. @param enteredOn the first day in the new section
 */
export function isReseated({ isUsed, enteredOn: came }: SeatToLeave, enteredOn: Day): boolean {
  return !isUsed && enteredOn <= came;
}

/** Null where nothing stands in the way. @param enteredOn the first day in the new section */
export function moveObstacle(seat: SeatToLeave, target: MoveTarget, enteredOn: Day): MoveObstacle | null {
  const { startsOn, endsOn } = target;
  if (seat.sectionId === target.id) return { code: 'same-section' };
  if (target.studentIds.includes(seat.studentId)) return { code: 'seated-there' };
  if (!isWithin(enteredOn, target)) return { code: 'section-not-running', startsOn, endsOn };
  if (isReseated(seat, enteredOn)) return null;
  if (enteredOn <= seat.enteredOn) return { code: 'before-entered', enteredOn: seat.enteredOn };
  if (seat.withdrawnOn !== null && seat.withdrawnOn < enteredOn)
    return { code: 'withdrawn-before', withdrawnOn: seat.withdrawnOn };
  return null;
}
