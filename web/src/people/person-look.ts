import type { Day } from '#core/calendar';
import { personTable, type PersonField } from '#core/people';
import type { PersonRowReply } from '#contract/people';
import { counted } from '#contract/messages';
import type { TableLook } from '../cell-tables/table-look';

/** How people show as a spreadsheet. */
export function personLook(today: Day): TableLook<PersonField, PersonRowReply> {
  return {
    table: personTable(today),
    label: 'People',
    newOne: 'the new person',
    titleOf: ({ familyName, givenName }) => [familyName, givenName].filter((name) => name !== '').join(', '),
    shared: 'another student has this number too',
    widths: {
      number: 96,
      familyName: 150,
      givenName: 120,
      preferredName: 110,
      kind: 72,
      yearGroup: 56,
      birthDate: 100,
      enteredOn: 100,
      leftOn: 100,
      pronoun: 84,
      email: 210,
    },
    staying: ['number', 'familyName'],
    main: 'familyName',
    onPoint: new Set(),
    inFigures: new Set(['number', 'birthDate', 'enteredOn', 'leftOn']),
    standIn: () => '',
    reasonOf: () => undefined,
    told: {
      heading: 'Kept by',
      width: 92,
      cell: ({ isOfRoster }) => (isOfRoster ? 'a roster' : 'this school'),
      reasonOf: ({ isOfRoster, sections, seatsAfterLeaving, cells }) =>
        [
          seatsAfterLeaving > 0
            ? `Left, and has ${counted(seatsAfterLeaving, 'seat')} beyond that day: give them a day of withdrawal under Enrollments.`
            : '',
          sections > 0 ? `${cells.kind === 'student' ? 'Sits in' : 'Teaches'} ${counted(sections, 'section')}.` : '',
          isOfRoster
            ? 'A roster brought this person: its next import writes names, number, e-mail and year as it has them.'
            : '',
        ]
          .join(' ')
          .trim() || undefined,
    },
  };
}
