import { isWithin, type Day } from '#core/calendar';
import type { OwnEnrollment } from './enrollment-cells.js';

/** Why a student cannot come to a section on a day. */
export type MoveObstacle =
  | { readonly code: 'same-section' }
  | { readonly code: 'seated-there' }
  | { readonly code: 'section-not-running'; readonly startsOn: Day; readonly endsOn: Day }
  /** Before or on the day on which the student came to the section that is to be left. */
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

/** Null where nothing stands in the way. @param enteredOn the first day in the new section */
export function moveObstacle(seat: OwnEnrollment, target: MoveTarget, enteredOn: Day): MoveObstacle | null {
  const { startsOn, endsOn } = target;
  if (seat.sectionId === target.id) return { code: 'same-section' };
  if (target.studentIds.includes(seat.studentId)) return { code: 'seated-there' };
  if (!isWithin(enteredOn, target)) return { code: 'section-not-running', startsOn, endsOn };
  if (enteredOn <= seat.enteredOn) return { code: 'before-entered', enteredOn: seat.enteredOn };
  if (seat.withdrawnOn !== null && seat.withdrawnOn < enteredOn)
    return { code: 'withdrawn-before', withdrawnOn: seat.withdrawnOn };
  return null;
}
