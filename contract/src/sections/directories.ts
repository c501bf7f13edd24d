import { nameBook, type EnrollmentDirectory, type SectionDirectory } from '#core/sections';
import type { EnrollmentsReply, NamedDaysReply, SectionsReply } from './sections-messages.js';

/** What the cells of sections name, as a reply has it. */
export function sectionDirectoryOf(
  reply: Pick<SectionsReply, 'courses' | 'staff' | 'periods' | 'yearId'>,
): SectionDirectory {
  const { courses, staff, periods, yearId } = reply;
  return {
    courses: nameBook(courses),
    staff: nameBook(staff),
    periods: nameBook(periods),
    yearId,
    daysOf: daysOf(periods),
  };
}

/** What the cells of enrollments name, as a reply has it. */
export function enrollmentDirectoryOf(
  reply: Pick<EnrollmentsReply, 'sections' | 'students' | 'year'>,
): EnrollmentDirectory {
  const { sections, students, year } = reply;
  return { sections: nameBook(sections), students: nameBook(students), daysOf: daysOf(sections), year };
}

function daysOf(things: readonly NamedDaysReply[]): EnrollmentDirectory['daysOf'] {
  return new Map(things.map(({ id, startsOn, endsOn }) => [id, { startsOn, endsOn }]));
}
