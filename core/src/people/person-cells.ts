import { parseDay, readTypedDay, type Day } from '#core/calendar';
import { foldCell, type CellFault, type Cells, type CellTable } from '#core/cell-tables';

export const personKinds = ['student', 'staff'] as const;
export type PersonKind = (typeof personKinds)[number];

/** The facts of a person that a spreadsheet may hold, in the order of its columns. */
export const personFields = ['number', 'familyName', 'givenName', 'kind', 'yearGroup', 'birthDate', 'email'] as const;
export type PersonField = (typeof personFields)[number];
export type PersonCells = Cells<PersonField>;

export const personHeadings: Readonly<Record<PersonField, string>> = {
  number: 'Number',
  familyName: 'Family name',
  givenName: 'Given name',
  kind: 'Kind',
  yearGroup: 'Year',
  birthDate: 'Born',
  email: 'E-mail',
};

/** A person as a school keeps them. */
export interface Person {
  readonly kind: PersonKind;
  /** As on a card; null where none is known. */
  readonly number: string | null;
  readonly givenName: string;
  readonly familyName: string;
  /** Empty where none is known; two people may have the same. */
  readonly email: string;
  readonly birthDate: Day | null;
  /** Year of school, such as "10"; null for staff, and where none is known. */
  readonly yearGroup: string | null;
}

export function cellsOfPerson({ number, birthDate, yearGroup, ...person }: Person): PersonCells {
  return {
    number: number ?? '',
    familyName: person.familyName,
    givenName: person.givenName,
    kind: person.kind,
    yearGroup: yearGroup ?? '',
    birthDate: birthDate ?? '',
    email: person.email,
  };
}

/** The person that the cells say. Call it only where no cell has a fault. */
export function personOfCells(cells: PersonCells): Person {
  const textOrNull = (field: PersonField) => cells[field].trim() || null;
  return {
    kind: kindOf(cells.kind)!,
    number: textOrNull('number'),
    givenName: cells.givenName.trim(),
    familyName: cells.familyName.trim(),
    email: cells.email.trim(),
    birthDate: parseDay(cells.birthDate.trim()) ?? null,
    yearGroup: textOrNull('yearGroup'),
  };
}

const longest: Readonly<Partial<Record<PersonField, number>>> = {
  number: 40,
  familyName: 80,
  givenName: 80,
  yearGroup: 20,
  email: 200,
};
const mayBeEmpty: ReadonlySet<PersonField> = new Set(['number', 'yearGroup', 'birthDate', 'email']);

function fault(field: PersonField, text: string): CellFault | undefined {
  const typed = text.trim();
  if (typed === '') return mayBeEmpty.has(field) ? undefined : 'cell-needed';
  if (typed.length > (longest[field] ?? Infinity)) return 'cell-too-long';
  if (field === 'kind') return kindOf(typed) ? undefined : 'kind-unknown';
  if (field === 'birthDate') {
    const read = birthDay(typed);
    return 'fault' in read ? read.fault : undefined;
  }
  if (field === 'email') return /^[^\s@]+@[^\s@]+$/.test(typed) ? undefined : 'address-unreadable';
  return undefined;
}

function tidy(field: PersonField, text: string): string {
  const typed = text.trim();
  if (typed === '' || fault(field, typed)) return typed;
  if (field === 'kind') return kindOf(typed)!;
  if (field === 'birthDate') {
    const read = birthDay(typed);
    return 'day' in read ? read.day : typed;
  }
  return typed;
}

const otherKindWords: Readonly<Record<string, PersonKind>> = { pupil: 'student', teacher: 'staff' };

function kindOf(text: string): PersonKind | undefined {
  const word = text.trim().toLowerCase();
  return personKinds.find((kind) => kind === word) ?? otherKindWords[word];
}

/** What the reader of days takes for near, where a year is missing; a day of birth without one is not taken. */
const nearAnything = '2000-01-01' as Day;

/** A day of birth as it is typed, or what is wrong with it. */
function birthDay(text: string): { readonly day: Day } | { readonly fault: CellFault } {
  const read = readTypedDay(text, nearAnything, 'dayFirst');
  if (read.kind === 'placeholder' || (read.kind === 'day' && read.day < '1900-01-01'))
    return { fault: 'birth-day-unlikely' };
  // 3/4/2010 is a day in March or in April: nobody is asked here, so that neither is taken.
  if (read.kind !== 'day' || read.otherwise !== null || !/\d{4}/.test(text)) return { fault: 'day-unreadable' };
  return { day: read.day };
}

/**
 * People as a spreadsheet has them. A row of a file is a person by their number; where one of both has none, by name and
 * address, or by name and day of birth: brothers and sisters share an address. What two people share tells neither of them.
 */
export const personTable: CellTable<PersonField> = {
  fields: personFields,
  headings: personHeadings,
  otherHeadings: {
    number: ['Student number', 'Student no', 'Pupil number', 'Staff number', 'Id', 'ID number'],
    familyName: ['Last name', 'Surname', 'Family'],
    givenName: ['First name', 'Forename', 'Given'],
    kind: ['Role', 'Type'],
    yearGroup: ['Year group', 'Grade', 'Year of school', 'Class year'],
    birthDate: ['Birth date', 'Date of birth', 'Day of birth', 'Birthday', 'DOB'],
    email: ['Email', 'E-mail address', 'Email address', 'Address'],
  },
  neededColumns: ['familyName', 'givenName'],
  // The staff may be numbered like students.
  unique: { field: 'number', keyOf: ({ kind, number }) => (kindOf(kind) === 'staff' ? '' : number) },
  fault,
  together: () => ({}),
  tidy,
  identities({ number, email, familyName, givenName, birthDate }) {
    const name = [familyName, givenName].map(foldCell).join(', ');
    // Of whom nothing else is known, the name is all there is.
    if (number === '' && email === '' && birthDate === '') return [`only ${name}`];
    return [
      ...(number.trim() === '' ? [] : [`number ${foldCell(number)}`]),
      ...(email.trim() === '' ? [] : [`address ${foldCell(email)} ${name}`]),
      ...(birthDate.trim() === '' ? [] : [`born ${birthDate.trim()} ${name}`]),
    ];
  },
  isOther: (said, kept) => said.number !== '' && kept.number !== '' && foldCell(said.number) !== foldCell(kept.number),
};
