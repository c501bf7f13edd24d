import { enrollmentTable, type EnrollmentDirectory, type EnrollmentField } from '#core/sections';
import type { EnrollmentRowReply } from '#contract/sections';
import type { TableLook } from '../cell-tables/table-look';
import { showName } from '../ui/format';

/** How those who sit in sections show as a spreadsheet. */
export function enrollmentLook(directory: EnrollmentDirectory): TableLook<EnrollmentField, EnrollmentRowReply> {
  return {
    table: enrollmentTable(directory),
    label: 'Enrollments',
    newOne: 'the new enrollment',
    titleOf: ({ student }) => student,
    shared: 'this student has a seat in the section already',
    widths: { section: 230, student: 250, enteredOn: 110, withdrawnOn: 110 },
    staying: ['section', 'student'],
    main: 'student',
    onPoint: new Set(),
    inFigures: new Set(['enteredOn', 'withdrawnOn']),
    shown: (field, text) => (field === 'student' ? directory.students.shown(text, showName) : text),
    standIn: ({ cells }, field) => (field === 'enteredOn' ? firstDayOf(directory, cells.section) : ''),
    reasonOf: () => undefined,
    told: {
      heading: 'Kept by',
      width: 92,
      cell: ({ isOfRoster }) => (isOfRoster ? 'a roster' : 'this school'),
      reasonOf: ({ isOfRoster }) =>
        isOfRoster ? 'A roster brought this enrollment: its next import writes its days as it has them.' : undefined,
    },
  };
}

/** Who has no day of entering enters with the section. */
function firstDayOf({ sections, daysOf }: EnrollmentDirectory, section: string): string {
  const id = sections.read(section);
  return typeof id === 'number' ? (daysOf.get(id)?.startsOn ?? '') : '';
}
