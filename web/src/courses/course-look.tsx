import { courseTable, type CourseField, type InheritableFact } from '#core/courses';
import type { CourseReply } from '#contract/courses';
import type { TableLook, TableRow } from '../cell-tables/table-look';

/** What holds for a fact that the course leaves empty. */
const inheritedOf = ({ cells, reply }: TableRow<CourseField, CourseReply>, field: CourseField) =>
  cells[field] === '' ? reply?.inherited[field as InheritableFact] : undefined;

const sources = {
  department: 'the department says so',
  school: 'the school says so',
  course: undefined,
  nowhere: 'no default is set',
} as const;

/** How courses show as a spreadsheet. */
export const courseLook: TableLook<CourseField, CourseReply> = {
  table: courseTable,
  label: 'Courses',
  newOne: 'the new course',
  titleOf: ({ title }) => title,
  shared: 'another course has this code too',
  widths: {
    code: 74,
    title: 178,
    department: 134,
    kind: 72,
    level: 64,
    length: 70,
    credits: 58,
    mostCredits: 72,
    onTranscript: 72,
    countsInGpa: 44,
    allowsExempt: 64,
  },
  staying: ['code', 'title'],
  main: 'title',
  onPoint: new Set(['credits', 'mostCredits']),
  inFigures: new Set(['code', 'credits', 'mostCredits']),
  standIn: (row, field) => inheritedOf(row, field)?.text ?? '',
  reasonOf(row, field) {
    const inherited = inheritedOf(row, field);
    return inherited && sources[inherited.from];
  },
  told: {
    heading: 'Scale',
    width: 98,
    cell: ({ scale }) => scale?.name ?? <span className="text-waratah">none</span>,
    reasonOf: ({ scale }) => (scale ? `Its scale is set by ${scale.from}.` : undefined),
  },
};
