import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, dayOrThrow, type Day } from '#core/calendar';
import { planRows } from '#core/cell-tables';
import { nameBook } from '#core/sections';
import { attendanceIn, attendanceTable, readAttendance, seatKey, sitsOn, type AbsenceKind } from './index.js';

const day = dayOrThrow;
const seed = { seed: 20_260_121 };

describe('an entry of a register', () => {
  it.each([
    ['', 'present'],
    ['p', 'present'],
    ['Here', 'present'],
    ['A', 'absent'],
    ['abs', 'absent'],
    ['Unexcused', 'absent'],
    ['e', 'excused'],
    ['exc', 'excused'],
    ['Authorised', 'excused'],
    ['l', 'late'],
    [' TARDY ', 'late'],
    ['x', undefined],
    ['0', undefined],
    // "Authorised absence" in one letter would be absent: the letters go before the words.
    ['a', 'absent'],
  ])('%j is %s', (text, mark) => expect(readAttendance(text)).toBe(mark));
});

describe('the last day present', () => {
  const stretch = { startsOn: day('2026-01-12'), endsOn: day('2026-01-16') };
  const taken = ['2026-01-12', '2026-01-14', '2026-01-13', '2026-01-20'].map(day);
  it.each<[string, Record<string, AbsenceKind>, ReturnType<typeof attendanceIn>]>([
    ['always there', {}, { lastPresent: day('2026-01-14'), lastMissed: null, daysTaken: 3, daysMissed: 0 }],
    [
      'late is there',
      { '2026-01-14': 'late' },
      { lastPresent: day('2026-01-14'), lastMissed: null, daysTaken: 3, daysMissed: 0 },
    ],
    [
      'absent at last',
      { '2026-01-14': 'absent' },
      { lastPresent: day('2026-01-13'), lastMissed: day('2026-01-14'), daysTaken: 3, daysMissed: 1 },
    ],
    [
      'excused is not there',
      { '2026-01-14': 'excused' },
      { lastPresent: day('2026-01-13'), lastMissed: day('2026-01-14'), daysTaken: 3, daysMissed: 1 },
    ],
    [
      'there on none',
      { '2026-01-12': 'absent', '2026-01-13': 'absent', '2026-01-14': 'excused' },
      { lastPresent: null, lastMissed: day('2026-01-14'), daysTaken: 3, daysMissed: 3 },
    ],
  ])('%s', (_says, absences, summary) => {
    const own = new Map(Object.entries(absences) as [Day, AbsenceKind][]);
    expect(attendanceIn(stretch, taken, own)).toEqual(summary);
  });

  it('is unknown where no register was taken', () => {
    expect(attendanceIn(stretch, [], new Map())).toEqual({
      lastPresent: null,
      lastMissed: null,
      daysTaken: 0,
      daysMissed: 0,
    });
  });

  it('is a taken day of the stretch without an absence, and none after it is; in whatever order the days come', () => {
    const start = day('2026-01-05');
    const days = fc.uniqueArray(fc.integer({ min: 0, max: 40 }), { maxLength: 30 });
    fc.assert(
      fc.property(
        days,
        days,
        fc.integer({ min: 0, max: 40 }),
        fc.integer({ min: 0, max: 40 }),
        (all, missed, from, to) => {
          const within = { startsOn: addDays(start, from), endsOn: addDays(start, to) };
          const absences = new Map(missed.map((at): [Day, AbsenceKind] => [addDays(start, at), 'absent']));
          const { lastPresent, daysTaken, daysMissed } = attendanceIn(
            within,
            all.map((at) => addDays(start, at)),
            absences,
          );
          const counted = all.filter((at) => from <= at && at <= to);
          const there = counted.filter((at) => !missed.includes(at));
          expect(lastPresent).toBe(there.length === 0 ? null : addDays(start, Math.max(...there)));
          expect([daysTaken, daysMissed]).toEqual([counted.length, counted.length - there.length]);
        },
      ),
      seed,
    );
  });
});

it.each([
  ['2026-01-04', false],
  ['2026-01-05', true],
  ['2026-01-15', true],
  ['2026-01-16', false],
])('from the 5th to the 15th a student sits in the section on %s: %s', (on, sits) => {
  const seat = { enteredOn: day('2026-01-05'), withdrawnOn: day('2026-01-15') };
  expect(sitsOn(seat, day(on))).toBe(sits);
  expect(sitsOn({ ...seat, withdrawnOn: null }, day('2026-06-01'))).toBe(true);
});

describe('a file of attendance', () => {
  const directory = {
    sections: nameBook([{ id: 1, names: ['Weaving 1', 'WEA 1'], apart: '' }]),
    students: nameBook([
      { id: 7, names: ['Reed, Tamsin'], apart: 'T7' },
      { id: 8, names: ['Oake, Finn'], apart: 'T8' },
    ]),
    year: { startsOn: day('2025-09-08'), endsOn: day('2026-06-26') },
    today: day('2026-01-21'),
    seats: new Map([[seatKey(1, 7), { startsOn: day('2026-01-05'), endsOn: day('2026-01-15') }]]),
    isSchoolDay: (each: Day) => each !== day('2026-01-10'),
  };
  const plan = (...rows: string[][]) =>
    planRows(attendanceTable(directory), [['Class', 'Pupil number', 'Date', 'Status'], ...rows], [])!.rows.map(
      ({ outcome, cells, faults }) => [
        outcome,
        ...(faults.length > 0 ? faults.map(({ fault }) => fault) : Object.values(cells)),
      ],
    );

  it.each([
    ['by its name, number and words', ['Weaving 1', 'T7', '12/1/2026', 'absent'], ['faulty', 'day-unreadable']],
    [
      'a day that can be read in one way',
      ['wea 1', 't7', '13/1/2026', 'absent'],
      ['new', 'Weaving 1', 'Reed, Tamsin', '2026-01-13', 'A'],
    ],
    ['a blank is no word for present', ['Weaving 1', 'T7', '2026-01-12', ''], ['faulty', 'cell-needed']],
    ['an unknown word', ['Weaving 1', 'T7', '2026-01-12', 'sick?'], ['faulty', 'status-unknown']],
    ['an unknown student', ['Weaving 1', 'T9', '2026-01-12', 'A'], ['faulty', 'student-unknown']],
    ['a student of another section', ['Weaving 1', 'T8', '2026-01-12', 'A'], ['faulty', 'student-not-in-section']],
    ['a day before the student came', ['Weaving 1', 'T7', '2025-12-12', 'A'], ['faulty', 'day-outside-seat']],
    ['a day after the student left', ['Weaving 1', 'T7', '2026-01-16', 'A'], ['faulty', 'day-outside-seat']],
    ['a day without classes', ['Weaving 1', 'T7', '2026-01-10', 'A'], ['faulty', 'day-without-classes']],
    ['a day ahead', ['Weaving 1', 'T7', '2026-01-22', 'A'], ['faulty', 'day-ahead']],
    ['a placeholder', ['Weaving 1', 'T7', '1899-12-30', 'A'], ['faulty', 'day-unreadable']],
  ])('%s', (_says, row, expected) => expect(plan(row)).toEqual([expected]));

  it('tells the same student’s day twice', () => {
    const row = ['Weaving 1', 'T7', '2026-01-13', 'A'];
    expect(plan(row, ['WEA 1', 'Reed, Tamsin', '2026-01-13', 'P']).map(([outcome]) => outcome)).toEqual([
      'new',
      'twice',
    ]);
  });
});
