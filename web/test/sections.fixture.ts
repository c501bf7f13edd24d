import { dayOrThrow } from '#core/calendar';
import type { EnrollmentCells, SectionCells } from '#core/sections';
import type { EnrollmentRowReply, EnrollmentsReply, SectionRowReply, SectionsReply } from '#contract/sections';

const days = (startsOn: string, endsOn: string) => ({ startsOn: dayOrThrow(startsOn), endsOn: dayOrThrow(endsOn) });

export const sectionCells = (over: Partial<SectionCells> = {}): SectionCells => ({
  course: 'Weaving',
  number: '1',
  teacher: 'Reed, Tamsin',
  coTeachers: '',
  period: '',
  startsOn: '',
  endsOn: '',
  seats: '',
  ...over,
});

export const sectionOf = (id: number, cells: SectionCells, over: Partial<SectionRowReply> = {}): SectionRowReply => ({
  id,
  revision: `r${id}`,
  cells,
  name: `${cells.course} ${cells.number}`,
  staying: 0,
  students: 20,
  isOfRoster: false,
  ...over,
});

export const sectionsReply = (sections: readonly SectionRowReply[]): SectionsReply => ({
  yearId: 1,
  courses: [
    { id: 11, names: ['Weaving'], apart: 'WEA' },
    { id: 12, names: ['Knots'], apart: 'KNO' },
  ],
  staff: [
    { id: 7, names: ['Reed, Tamsin', 'Tamsin Reed'], apart: 'T7' },
    { id: 8, names: ['Hale, Bo', 'Bo Hale'], apart: 'T8' },
  ],
  periods: [
    { id: 1, names: ['2025–26'], apart: '', ...days('2025-09-01', '2026-06-30') },
    { id: 2, names: ['Semester 1'], apart: '', ...days('2025-09-01', '2026-01-31') },
  ],
  sections,
});

export const enrollmentCells = (student: string, over: Partial<EnrollmentCells> = {}): EnrollmentCells => ({
  section: 'Weaving 1',
  student,
  enteredOn: '2025-09-01',
  withdrawnOn: '',
  ...over,
});

export const enrollmentOf = (id: number, cells: EnrollmentCells): EnrollmentRowReply => ({
  id,
  revision: `r${id}`,
  cells,
  sectionId: 31,
  isOfRoster: false,
});

export const enrollmentsReply = (enrollments: readonly EnrollmentRowReply[]): EnrollmentsReply => ({
  yearId: 1,
  year: days('2025-09-01', '2026-06-30'),
  sections: [{ id: 31, names: ['Weaving 1', 'WEA 1'], apart: '', ...days('2025-09-01', '2026-06-30') }],
  students: [
    { id: 41, names: ['Skerry, Ada', 'Ada Skerry'], apart: 'S1' },
    { id: 42, names: ['Rook, Bo', 'Bo Rook'], apart: 'S2' },
  ],
  enrollments,
});
