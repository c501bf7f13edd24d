import { Link } from 'react-router';
import { sectionTable, type SectionCells, type SectionDirectory, type SectionField } from '#core/sections';
import type { SectionRowReply } from '#contract/sections';
import { counted } from '#contract/messages';
import type { TableLook } from '../cell-tables/table-look';
import { showCount } from '../ui/format';

/** How the sections of a year show as a spreadsheet; what the period says stands in grey. */
export function sectionLook(
  directory: SectionDirectory,
  path: (place: string) => string,
): TableLook<SectionField, SectionRowReply> {
  return {
    table: sectionTable(directory),
    label: 'Sections',
    newOne: 'the new section',
    titleOf: ({ course, number }) => (course === '' ? '' : `${course} ${number}`.trim()),
    shared: 'another section of the course has this number in the same period',
    widths: { course: 200, number: 70, teacher: 160, coTeachers: 150, period: 110, startsOn: 100, endsOn: 100 },
    staying: ['course', 'number'],
    main: 'course',
    onPoint: new Set(),
    inFigures: new Set(['number', 'startsOn', 'endsOn']),
    standIn: ({ cells }, field) =>
      field === 'period'
        ? directory.periods.textOf(directory.yearId)
        : field === 'startsOn' || field === 'endsOn'
          ? daysOf(directory, cells)[field]
          : '',
    reasonOf: ({ cells }, field) =>
      (field === 'startsOn' || field === 'endsOn') && cells[field] === '' ? 'as its period' : undefined,
    told: {
      heading: 'Students',
      width: 92,
      cell: ({ id, name, students }) => (
        <Link
          to={path(`enrollments?section=${id}`)}
          aria-label={`${counted(students, 'student')} of ${name}`}
          className="figures text-estuary underline-offset-2 hover:underline"
        >
          {showCount(students)}
        </Link>
      ),
      reasonOf: ({ isOfRoster }) =>
        isOfRoster
          ? 'A roster brought this section: its next import writes its course, teacher and period as it has them.'
          : undefined,
    },
  };
}

function daysOf({ periods, yearId, daysOf: all }: SectionDirectory, { period }: SectionCells) {
  const named = period === '' ? yearId : periods.read(period);
  const days = typeof named === 'number' ? all.get(named) : undefined;
  return days ?? { startsOn: '', endsOn: '' };
}
