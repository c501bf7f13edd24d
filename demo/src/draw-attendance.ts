import { daysOf, isInstructional, weekdayOf, dayOrThrow, type Day } from '#core/calendar';
import type { AbsenceKind } from '#core/attendance';
import type { District } from './district.js';
import type { Random } from './random.js';
import { college, demoNow } from './schools.js';

/** Days of the week on which a class of the college meets. */
const meetings = [
  [1, 3],
  [2, 4],
] as const;
const today = demoNow.slice(0, 10) as Day;

/** The college takes attendance on each day that a class meets, as aid rests on it; this morning's is still to be taken. */
export function drawAttendance(district: District, random: Random): void {
  const { courses, sections, enrollments, periods, breaks, registers, absences } = district;
  const own = new Set(courses.filter(({ schoolId }) => schoolId === college.id).map(({ id }) => id));
  const closed = breaks
    .filter(({ schoolId }) => schoolId === college.id)
    .map((each) => ({ ...each, id: 0, ...days(each) }));
  for (const { id: sectionId, courseId, periodId, teacherId } of sections) {
    if (!own.has(courseId)) continue;
    const period = periods.find(({ id }) => id === periodId)!;
    const meets: readonly number[] = meetings[sectionId % 2]!;
    const held = daysOf(days(period)).filter(
      (day) => day < today && meets.includes(weekdayOf(day)) && isInstructional(day, [1, 2, 3, 4, 5], closed),
    );
    for (const day of held)
      registers.push({ sectionId, day, takenBy: teacherId, takenAt: new Date(`${day}T16:05:00Z`) });
    for (const { id: enrollmentId, enteredOn, withdrawnOn } of enrollments.filter(
      (each) => each.sectionId === sectionId,
    )) {
      // Few stop coming without a word.
      const stays = random.chance(0.03) ? random.pick(held.length > 0 ? held : [today]) : undefined;
      for (const day of held) {
        if (day < enteredOn || (withdrawnOn !== null && day > withdrawnOn)) continue;
        const kind: AbsenceKind | undefined =
          stays !== undefined && day > stays ? 'absent' : draw(random.whole(1, 200));
        if (kind) absences.push({ enrollmentId, day, kind });
      }
    }
  }
}

/** Of two hundred days: eight absent, three excused, six late. */
function draw(chance: number): AbsenceKind | undefined {
  return chance <= 8 ? 'absent' : chance <= 11 ? 'excused' : chance <= 17 ? 'late' : undefined;
}

const days = ({ startsOn, endsOn }: { startsOn: string; endsOn: string }) => ({
  startsOn: dayOrThrow(startsOn),
  endsOn: dayOrThrow(endsOn),
});
