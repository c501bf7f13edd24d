import { daysOf, dayOrThrow, weekdayOf } from '#core/calendar';
import type { GradeRow } from '../district.js';
import type { Planting } from './planting.js';
import { secondTerm, spindleRock } from './spindle-rock.js';

/** Registers of the one section of which they came along, and dates of attendance beside them. */
export function plantInAttendance({ named, nextOf, fault, decoy, district }: Planting, failing: object): void {
  const { registers, absences, enrollments } = district;
  const section = named('Rock Pools 1');
  const { startsOn, endsOn } = spindleRock.periods.find(({ id }) => id === secondTerm)!;
  const held = daysOf({ startsOn: dayOrThrow(startsOn), endsOn: dayOrThrow(endsOn) }).filter((day) =>
    [1, 3].includes(weekdayOf(day)),
  );
  for (const day of held)
    registers.push({
      sectionId: section.id,
      day,
      takenBy: section.teacherId,
      takenAt: new Date(`${day}T16:05:00Z`),
    });
  const awayFrom = (grade: GradeRow, day: string) => {
    for (const missed of held.filter((each) => each >= day))
      absences.push({ enrollmentId: grade.enrollmentId, day: missed, kind: 'absent' });
    return grade;
  };
  fault(
    'last-date-after-last-present',
    'the registers have the student present last three weeks before the last date',
    Object.assign(awayFrom(nextOf('Rock Pools 1'), '2025-12-01'), failing, { lastDate: '2025-12-18' }),
  );
  decoy(
    'last-date-after-last-present',
    'the last date is the day on which the registers have the student present last',
    Object.assign(awayFrom(nextOf('Rock Pools 1'), '2025-12-01'), failing, { lastDate: '2025-11-26' }),
  );
  const cameLate = (lastDate: string) => {
    const grade = Object.assign(nextOf('Rock Pools 1'), failing, { lastDate });
    const at = enrollments.findIndex(({ id }) => id === grade.enrollmentId);
    enrollments[at] = { ...enrollments[at]!, enteredOn: '2025-11-24' };
    return grade;
  };
  fault('last-date-outside-enrollment', 'a last date before the student came', cameLate('2025-11-12'));
  decoy('last-date-outside-enrollment', 'a last date on the day on which the student came', cameLate('2025-11-24'));
}
