import { dayOrThrow, readTypedDay, type Day, type TypedDay } from '#core/calendar';
import { pronouns, type Pronoun } from './pronoun.js';
import { foldCell, type CellFault, type Cells, type CellTable } from '#core/cell-tables';

export const personKinds = ['student', 'staff'] as const;
export type PersonKind = (typeof personKinds)[number];

/** The facts of a person that a spreadsheet may hold, in the order of its columns. */
export const personFields = [
  'number',
  'familyName',
  'givenName',
  'kind',
  'yearGroup',
  'birthDate',
  'email',
  'preferredName',
  'enteredOn',
  'leftOn',
  'pronoun',
] as const;
export type PersonField = (typeof personFields)[number];
export type PersonCells = Cells<PersonField>;

export const personHeadings: Readonly<Record<PersonField, string>> = {
  number: 'Number',
  familyName: 'Family name',
  givenName: 'Given name',
  preferredName: 'Preferred name',
  kind: 'Kind',
  yearGroup: 'Year',
  birthDate: 'Born',
  enteredOn: 'Entered',
  leftOn: 'Left',
  pronoun: 'Pronoun',
  email: 'E-mail',
};

/** A person as a school keeps them. */
export interface Person {
  readonly kind: PersonKind;
  /** As on a card; null where none is known. */
  readonly number: string | null;
  readonly givenName: string;
  readonly familyName: string;
  /** The given name that the person goes by; null where it is the legal one. */
  readonly preferredName: string | null;
  /** Empty where none is known; two people may have the same. */
  readonly email: string;
  readonly birthDate: Day | null;
  /** Year of school, such as "10"; null for staff, and where none is known. */
  readonly yearGroup: string | null;
  /** First and last day at the school; null where they are not known. */
  readonly enteredOn: Day | null;
  readonly leftOn: Day | null;
  /** How the person is spoken of; null where nobody said. */
  readonly pronoun: Pronoun | null;
}

export function cellsOfPerson({ familyName, givenName, kind, email, ...person }: Person): PersonCells {
  return {
    number: person.number ?? '',
    familyName,
    givenName,
    preferredName: person.preferredName ?? '',
    kind,
    yearGroup: person.yearGroup ?? '',
    birthDate: person.birthDate ?? '',
    enteredOn: person.enteredOn ?? '',
    leftOn: person.leftOn ?? '',
    pronoun: person.pronoun ?? '',
    email,
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
    preferredName: textOrNull('preferredName'),
    birthDate: lifeDay(cells.birthDate),
    yearGroup: textOrNull('yearGroup'),
    enteredOn: lifeDay(cells.enteredOn),
    leftOn: lifeDay(cells.leftOn),
    pronoun: pronounOf(cells.pronoun) ?? null,
  };
}

const longest: Readonly<Partial<Record<PersonField, number>>> = {
  number: 40,
  familyName: 80,
  givenName: 80,
  preferredName: 80,
  yearGroup: 20,
  email: 200,
};
const neededFields: ReadonlySet<PersonField> = new Set(['familyName', 'givenName', 'kind']);

function fault(field: PersonField, text: string, today: Day): CellFault | undefined {
  const typed = text.trim();
  if (typed === '') return neededFields.has(field) ? 'cell-needed' : undefined;
  if (typed.length > (longest[field] ?? Infinity)) return 'cell-too-long';
  if (field === 'kind') return kindOf(typed) ? undefined : 'kind-unknown';
  if (field === 'pronoun') return pronounOf(typed) ? undefined : 'pronoun-unknown';
  if (isDayField(field)) return dayFault(field, typed, today);
  if (field === 'email') return /^[^\s@]+@[^\s@]+$/.test(typed) ? undefined : 'address-unreadable';
  return undefined;
}

function tidy(field: PersonField, text: string, today: Day): string {
  const typed = text.trim();
  if (typed === '' || fault(field, typed, today)) return typed;
  if (field === 'kind') return kindOf(typed)!;
  if (field === 'pronoun') return pronounOf(typed)!;
  if (isDayField(field)) return lifeDay(typed)!;
  return typed;
}

const otherKindWords: Readonly<Record<string, PersonKind>> = { pupil: 'student', teacher: 'staff' };

function kindOf(text: string): PersonKind | undefined {
  const word = text.trim().toLowerCase();
  return personKinds.find((kind) => kind === word) ?? otherKindWords[word];
}

/** By the first word of what is written: "she/her" is "she". */
function pronounOf(text: string): Pronoun | undefined {
  const [word = ''] = text
    .trim()
    .toLowerCase()
    .split(/[^a-z]/);
  return pronouns.find((each) => each === word);
}

/** Before it nobody was born who is at a school; 1900-01-01 itself stands in spreadsheets for no day. */
const firstLikely = dayOrThrow('1900-01-01');

const dayFields = ['birthDate', 'enteredOn', 'leftOn'] as const;
type DayField = (typeof dayFields)[number];

function isDayField(field: PersonField): field is DayField {
  return dayFields.some((each) => each === field);
}

/**
 * A day of somebody's life as it is typed; null where it says none, or two: 3/4/2010 is in March or in April, and nobody is asked
 * here. Without a year it is none, as no year is the near one.
 */
function lifeDay(text: string): Day | null {
  const read = readWithYear(text);
  return read.kind === 'day' && read.otherwise === null && read.day >= firstLikely ? read.day : null;
}

function dayFault(field: DayField, text: string, today: Day): CellFault | undefined {
  const day = lifeDay(text);
  if (day !== null) return field === 'birthDate' && day > today ? 'birth-day-ahead' : undefined;
  const read = readWithYear(text);
  const isLongAgo = read.kind === 'placeholder' || (read.kind === 'day' && read.day < firstLikely);
  return field === 'birthDate' && isLongAgo ? 'birth-day-unlikely' : 'day-unreadable';
}

function readWithYear(text: string): TypedDay {
  return /\d{4}/.test(text) ? readTypedDay(text, firstLikely, 'dayFirst') : { kind: 'unreadable' };
}

/** A number that no two may have: a student's. The staff may be numbered like students. */
export function numberAlone({ kind, number }: PersonCells): string {
  return kindOf(kind) === 'staff' ? '' : number;
}

/**
 * People as a spreadsheet has them. A row of a file is a person by their number; where one of both has none, by name and
 * address, or by name and day of birth: brothers and sisters share an address. What two people share tells neither of them.
 */
export function personTable(today: Day): CellTable<PersonField> {
  return {
    fields: personFields,
    headings: personHeadings,
    otherHeadings: {
      number: ['Student number', 'Student no', 'Pupil number', 'Staff number', 'Id', 'ID number'],
      familyName: ['Last name', 'Surname', 'Family'],
      givenName: ['First name', 'Forename', 'Given'],
      kind: ['Role', 'Type'],
      yearGroup: ['Year group', 'Grade', 'Year of school', 'Class year'],
      preferredName: ['Preferred given name', 'Preferred first name', 'Goes by', 'Known as', 'Nickname'],
      enteredOn: ['Entry', 'Entry date', 'Entered on', 'Admitted', 'Admission date', 'Joined', 'Start date'],
      leftOn: ['Exit', 'Exit date', 'Left on', 'Leaving date', 'Withdrawn', 'End date'],
      birthDate: ['Birth date', 'Date of birth', 'Day of birth', 'Birthday', 'DOB'],
      pronoun: ['Pronouns'],
      email: ['Email', 'E-mail address', 'Email address', 'Address'],
    },
    neededColumns: ['familyName', 'givenName'],
    unique: { field: 'number', keyOf: numberAlone },
    fault: (field, text) => fault(field, text, today),
    together({ birthDate, enteredOn, leftOn }) {
      const [born, entered, left] = [birthDate, enteredOn, leftOn].map(lifeDay);
      if (born && entered && entered <= born) return { enteredOn: 'day-before-birth' };
      const from = entered ?? born;
      return from && left && left < from ? { leftOn: entered ? 'day-before-first' : 'day-before-birth' } : {};
    },
    tidy: (field, text) => tidy(field, text, today),
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
    isOther: (said, kept) =>
      said.number !== '' && kept.number !== '' && foldCell(said.number) !== foldCell(kept.number),
  };
}
