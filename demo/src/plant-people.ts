import type { District } from './district.js';
import { upper } from './schools.js';

/**
 * Everyday matters of a roster: sections that have only so many seats, a student who changed sections in the middle of a quarter,
 * and one who is listed twice.
 */
export function plantPeople(district: District): void {
  countSeats(district);
  moveOne(district);
  listOneTwice(district);
}

/** The classrooms of the upper school seat 24 and 50; a student more than that sits in one section. */
function countSeats({ courses, sections, enrollments }: District): void {
  const own = new Set(courses.filter(({ schoolId }) => schoolId === upper.id).map(({ id }) => id));
  const staying = new Map<number, number>();
  for (const { sectionId, withdrawnOn } of enrollments)
    if (withdrawnOn === null) staying.set(sectionId, (staying.get(sectionId) ?? 0) + 1);
  let isCrowded = false;
  sections.forEach((section, at) => {
    if (!own.has(section.courseId)) return;
    const taken = staying.get(section.id) ?? 0;
    const isFullest = !isCrowded && taken === 21;
    isCrowded ||= isFullest;
    sections[at] = { ...section, seats: isFullest ? 20 : taken > 24 ? 50 : 24 };
  });
}

/** From one section of a course to another on a Monday of Quarter 1; the grades are those of the second. */
function moveOne({ courses, sections, enrollments }: District): void {
  const [entered, left] = ['2025-10-06', '2025-10-03'];
  const course = courses.find(
    ({ id, schoolId }) => schoolId === upper.id && sections.filter((each) => each.courseId === id).length > 1,
  )!;
  const [first, second] = sections.filter(({ courseId }) => courseId === course.id);
  const seats = new Set(
    enrollments.filter(({ sectionId }) => sectionId === first!.id).map(({ studentId }) => studentId),
  );
  const at = enrollments.findIndex(
    ({ sectionId, studentId, withdrawnOn }) =>
      sectionId === second!.id && withdrawnOn === null && !seats.has(studentId),
  );
  const seat = enrollments[at]!;
  enrollments[at] = { ...seat, enteredOn: entered };
  enrollments.push({ ...seat, id: enrollments.length + 1, sectionId: first!.id, withdrawnOn: left });
}

/** Typed in by hand at the counter, under a short name, before the roster was looked at. */
function listOneTwice({ people }: District): void {
  const known = people.find(
    ({ kind, schoolId, givenName }) => kind === 'student' && schoolId === 3 && givenName.length > 5,
  )!;
  const id = Math.max(...people.map((person) => person.id!)) + 1;
  people.push({
    ...known,
    id,
    sourcedId: 'counter-1',
    isMadeHere: true,
    givenName: known.givenName.slice(0, 4),
    preferredName: null,
    email: '',
  });
}
