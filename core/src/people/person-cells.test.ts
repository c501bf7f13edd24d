import { describe, expect, it } from 'vitest';
import { faultsOfRow, planRows } from '#core/cell-tables';
import { dayOrThrow } from '#core/calendar';
import {
  cellsOfPerson,
  personFields,
  personHeadings,
  personOfCells,
  personTable,
  type Person,
} from './person-cells.js';

const today = dayOrThrow('2026-09-01');
const table = personTable(today);
const ada: Person = {
  kind: 'student',
  number: 'S1001',
  givenName: 'Ada',
  familyName: 'Skerry',
  preferredName: null,
  email: 'home@skerry.example',
  birthDate: dayOrThrow('2010-05-17'),
  yearGroup: '10',
  enteredOn: dayOrThrow('2024-09-02'),
  leftOn: null,
  pronoun: 'she',
};

describe('the cells of a person', () => {
  it('say the person, and come from them', () => expect(personOfCells(cellsOfPerson(ada))).toEqual(ada));

  it.each(['17 May 2010', '17/5/2010', ' 2010-05-17 '])('say the same days however "%s" is written', (birthDate) =>
    expect(personOfCells({ ...cellsOfPerson(ada), birthDate, enteredOn: '2 September 2024' })).toEqual(ada),
  );

  it.each([
    ['kind', 'Pupil', 'student'],
    ['kind', ' TEACHER ', 'staff'],
    ['birthDate', '17 May 2010', '2010-05-17'],
    ['birthDate', '17/5/2010', '2010-05-17'],
    ['birthDate', '5/17/2010', '2010-05-17'],
    ['familyName', '  Skerry ', 'Skerry'],
    ['number', '0042', '0042'],
    ['birthDate', '1 Sep 2026', '2026-09-01'],
    // Whoever comes next term is entered today.
    ['enteredOn', '11 January 2027', '2027-01-11'],
  ] as const)('%s "%s" is tidied to "%s"', (field, text, expected) =>
    expect([table.fault(field, text), table.tidy(field, text)]).toEqual([undefined, expected]),
  );

  it.each([
    ['familyName', ' ', 'cell-needed'],
    ['kind', '', 'cell-needed'],
    ['kind', 'parrot', 'kind-unknown'],
    ['pronoun', 'we', 'pronoun-unknown'],
    ['birthDate', '3/4/2010', 'day-unreadable'],
    ['birthDate', '17 May', 'day-unreadable'],
    ['birthDate', '2010-02-30', 'day-unreadable'],
    ['birthDate', '1900-01-01', 'birth-day-unlikely'],
    ['birthDate', '2026-09-02', 'birth-day-ahead'],
    ['enteredOn', '1899-12-30', 'day-unreadable'],
    ['leftOn', 'June', 'day-unreadable'],
    ['preferredName', 'x'.repeat(81), 'cell-too-long'],
    ['email', 'ada at home', 'address-unreadable'],
    ['number', 'x'.repeat(41), 'cell-too-long'],
  ] as const)('%s "%s" cannot be taken: %s', (field, text, fault) => expect(table.fault(field, text)).toBe(fault));
});

it.each([
  [{ birthDate: '2010-05-17', enteredOn: '2010-05-17' }, [{ field: 'enteredOn', fault: 'day-before-birth' }]],
  [{ birthDate: '2010-05-17', leftOn: '2009-06-30' }, [{ field: 'leftOn', fault: 'day-before-birth' }]],
  [{ enteredOn: '2024-09-02', leftOn: '2024-09-01' }, [{ field: 'leftOn', fault: 'day-before-first' }]],
  [{ enteredOn: '2 Sep 2024', leftOn: '1 Sep 2024' }, [{ field: 'leftOn', fault: 'day-before-first' }]],
  [{ enteredOn: '2024-09-02', leftOn: '2024-09-02' }, []],
  [{ birthDate: '', enteredOn: '', leftOn: '2024-09-02' }, []],
] as const)('days of a life stand in their order: %j', (days, faults) => {
  const cells = { ...cellsOfPerson(ada), birthDate: '', enteredOn: '', leftOn: '', ...days };
  expect(faultsOfRow(table, cells)).toEqual(faults);
});

describe('a file of people', () => {
  const bo: Person = { ...ada, number: 'S1002', givenName: 'Bo' };
  const twin: Person = { ...ada, number: null, givenName: 'Cy', email: '', birthDate: dayOrThrow('2011-01-02') };
  const existing = [ada, bo, twin].map((person, at) => ({ id: at + 1, cells: cellsOfPerson(person) }));
  const plan = (...rows: readonly (readonly string[])[]) => planRows(table, rows, existing)!;

  it('reads back what it writes as the same', () => {
    const { rows } = plan(
      personFields.map((field) => personHeadings[field]),
      ...existing.map(({ cells }) => personFields.map((field) => cells[field])),
    );
    expect(rows.map(({ id, outcome }) => [id, outcome])).toEqual([
      [1, 'same'],
      [2, 'same'],
      [3, 'same'],
    ]);
  });

  it('knows people by their number, else by name and day of birth, and never by an address of two', () => {
    const { headerRow, rows } = plan(
      ['Enrolment of the upper school'],
      ['Student no', 'Surname', 'First name', 'Role', 'DOB', 'Email'],
      ['s1001', 'Skerry', 'Adah', 'student', '', ''],
      ['', 'Skerry', 'Cy', 'student', '2 Jan 2011', 'cy@skerry.example'],
      ['', 'Skerry', 'Dot', 'student', '', 'home@skerry.example'],
      ['S1009', 'Rook', 'Eve', 'student', '', ''],
      ['S1009', 'Rook', 'Eve', 'student', '', ''],
      ['S1010', 'Rook', '', 'student', '', ''],
    );
    expect([headerRow, rows.map(({ row, id, outcome }) => [row, id, outcome])]).toEqual([
      2,
      [
        [3, 1, 'changed'],
        [4, 3, 'changed'],
        [5, null, 'new'],
        [6, null, 'new'],
        [7, null, 'twice'],
        [8, null, 'faulty'],
      ],
    ]);
  });

  it('takes nobody for a sister or a brother whose address they share, nor for a namesake with another number', () => {
    const only = [{ id: 1, cells: cellsOfPerson(ada) }];
    const rows = planRows(
      table,
      [
        ['Number', 'Family name', 'Given name', 'Kind', 'Born', 'E-mail'],
        ['', 'Skerry', 'Dot', 'student', '2012-01-01', 'home@skerry.example'],
        ['S1003', 'Skerry', 'Ada', 'student', '', 'home@skerry.example'],
        ['S1004', 'Skerry', 'Ada', 'student', '2010-05-17', ''],
        ['', 'skerry', ' ADA ', 'student', '', 'Home@Skerry.example'],
      ],
      only,
    )!.rows;
    expect(rows.map(({ id, outcome }) => [id, outcome])).toEqual([
      [null, 'new'],
      [null, 'new'],
      [null, 'new'],
      [1, 'changed'],
    ]);
  });

  it('knows whom nothing but a name is known of by that, and only among those', () => {
    const bare: Person = { ...ada, number: null, email: '', birthDate: null };
    const kept = [ada, { ...bare, givenName: 'Eve' }].map((person, at) => ({
      id: at + 1,
      cells: cellsOfPerson(person),
    }));
    const heads = personFields.map((field) => personHeadings[field]);
    const lines = [kept[1]!.cells, cellsOfPerson(bare)].map((cells) => personFields.map((field) => cells[field]));
    const { rows } = planRows(table, [heads, ...lines], kept)!;
    expect(rows.map(({ id, outcome }) => [id, outcome])).toEqual([
      [2, 'same'],
      [null, 'new'],
    ]);
  });

  it('takes a line that stands in it twice once', () => {
    const line = ['', 'Rook', 'Eve', 'student', '', ''];
    const { rows } = plan(['Number', 'Family name', 'Given name', 'Kind', 'Born', 'E-mail'], line, line);
    expect(rows.map(({ outcome }) => outcome)).toEqual(['new', 'twice']);
  });

  it('of two rows that are one person takes neither twice', () => {
    const { rows } = plan(
      ['Number', 'Family name', 'Given name', 'Kind', 'Born'],
      ['S1001', 'Skerry', 'Ada', 'student', '2010-05-17'],
      ['', 'Skerry', 'Ada', 'student', '2010-05-17'],
    );
    expect(rows.map(({ id, outcome }) => [id, outcome])).toEqual([
      [1, 'same'],
      [1, 'twice'],
    ]);
  });
});
