import { Link } from 'react-router';
import type { Day } from '#core/calendar';
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
    widths: {
      course: 182,
      number: 68,
      teacher: 142,
      coTeachers: 118,
      period: 104,
      startsOn: 106,
      endsOn: 106,
      seats: 58,
    },
    staying: ['course', 'number'],
    main: 'course',
    onPoint: new Set(),
    inFigures: new Set(['number', 'startsOn', 'endsOn', 'seats']),
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
      width: 82,
      cell: ({ id, name, students, staying, cells }) => (
        <Link
          to={path(`enrollments?section=${id}`)}
          aria-label={`${counted(students, 'student')} of ${name}`}
          className={`figures underline-offset-2 hover:underline ${isOverfull({ staying, cells }) ? 'font-bold text-wattle' : 'text-estuary'}`}
        >
          {showCount(students)}
        </Link>
      ),
      reasonOf: ({ isOfRoster, staying, cells }) =>
        [
          seatsInWords(staying, cells),
          isOfRoster
            ? 'A roster brought this section: its next import writes its course, teacher and period as it has them.'
            : '',
        ]
          .join(' ')
          .trim() || undefined,
    },
  };
}

/** "28 of 30 seats are taken." */
function seatsInWords(staying: number, { seats }: SectionCells): string {
  return seats === '' ? '' : `${showCount(staying)} of ${counted(Number(seats), 'seat')} are taken.`;
}

/** Whether more students sit in a section than there is room for. */
export function isOverfull({ staying, cells }: Pick<SectionRowReply, 'staying' | 'cells'>): boolean {
  return cells.seats !== '' && staying > Number(cells.seats);
}

/** Whether a section runs on a day; what is not there yet never does. */
export function runsOn(directory: SectionDirectory, cells: SectionCells, day: Day): boolean {
  const days = daysOf(directory, cells);
  const [startsOn, endsOn] = [cells.startsOn || days.startsOn, cells.endsOn || days.endsOn];
  return startsOn <= day && day <= endsOn;
}

function daysOf({ periods, yearId, daysOf: all }: SectionDirectory, { period }: SectionCells) {
  const named = period === '' ? yearId : periods.read(period);
  const days = typeof named === 'number' ? all.get(named) : undefined;
  return days ?? { startsOn: '', endsOn: '' };
}
