import type { Day } from '#core/calendar';
import { isPresent, type AbsenceKind } from './absence.js';

/** How a student came to a section in a stretch of days, as far as its registers tell. */
export interface AttendanceSummary {
  /** Null where the student came on none of the days. */
  readonly lastPresent: Day | null;
  /** The last day on which the student was missing; null where on none. */
  readonly lastMissed: Day | null;
  /** Days whose register was taken while the student sat in the section. */
  readonly daysTaken: number;
  readonly daysMissed: number;
}

/**
 * What registers tell of a student between two days, both included.
 * @param stretch from when to when the student sat in the section, within the period
 * @param taken days whose register was taken, in any order
 * @param absences the student's own, by day
 * @example attendanceIn({ startsOn: '2026-01-12', endsOn: '2026-01-16' }, ['2026-01-12'], new Map()).lastPresent // '2026-01-12'
 */
export function attendanceIn(
  { startsOn, endsOn }: { readonly startsOn: Day; readonly endsOn: Day },
  taken: readonly Day[],
  absences: ReadonlyMap<Day, AbsenceKind>,
): AttendanceSummary {
  let [lastPresent, lastMissed]: [Day | null, Day | null] = [null, null];
  let [daysTaken, daysMissed] = [0, 0];
  for (const day of taken) {
    if (day < startsOn || day > endsOn) continue;
    daysTaken += 1;
    if (!isPresent(absences.get(day) ?? 'present')) {
      daysMissed += 1;
      if (lastMissed === null || day > lastMissed) lastMissed = day;
    } else if (lastPresent === null || day > lastPresent) lastPresent = day;
  }
  return { lastPresent, lastMissed, daysTaken, daysMissed };
}
