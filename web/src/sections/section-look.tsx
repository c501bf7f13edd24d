import { Link } from 'react-router';
import {
  daysOfPeriod,
  isOverfull,
  readSeats,
  sectionTable,
  type SectionCells,
  type SectionDirectory,
  type SectionField,
} from '#core/sections';
import type { SectionRowReply } from '#contract/sections';
import { counted } from '#contract/messages';
import type { TableLook } from '../cell-tables/table-look';
import { showCount, showName } from '../ui/format';

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
    shown: (field, text) =>
      field === 'teacher' || field === 'coTeachers'
        ? text
            .split('; ')
            .map((name) => directory.staff.shown(name, showName))
            .join('; ')
        : text,
    standIn: ({ cells }, field) =>
      field === 'period'
        ? directory.periods.textOf(directory.yearId)
        : field === 'startsOn' || field === 'endsOn'
          ? daysOfPeriod(directory, cells)[field]
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
          className={`figures underline-offset-2 hover:underline ${hasTooMany({ staying, cells }) ? 'font-bold text-wattle' : 'text-estuary'}`}
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

/** Whether more students sit in a section than there is room for. */
export function hasTooMany({ staying, cells }: Pick<SectionRowReply, 'staying' | 'cells'>): boolean {
  return isOverfull(staying, readSeats(cells.seats) ?? null);
}

/** "28 of 30 seats are taken." */
function seatsInWords(staying: number, { seats }: SectionCells): string {
  const room = readSeats(seats);
  return room === undefined ? '' : `${showCount(staying)} of ${counted(room, 'seat')} are taken.`;
}
