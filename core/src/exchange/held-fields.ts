import type { ExchangeFault } from './check-rows.js';
import { extension, type ExchangeFile, type ExchangeRow, type ExchangeRows } from './exchange-format.js';

/** The fields of which Wombat keeps what they say; the others pass by. */
const held: Readonly<Record<ExchangeFile, readonly string[]>> = {
  orgs: ['name', 'identifier'],
  academicSessions: ['title', 'type', 'startDate', 'endDate', 'parentSourcedId', extension('kind')],
  users: [
    'givenName',
    'familyName',
    'preferredGivenName',
    'email',
    'grades',
    'identifier',
    ...['preferredName', 'enteredOn', 'leftOn', 'pronoun'].map(extension),
  ],
  roles: [],
  demographics: ['birthDate'],
  courses: [
    'title',
    'courseCode',
    'subjects',
    ...['kind', 'level', 'length', 'credits', 'mostCredits', 'onTranscript', 'countsInGpa', 'allowsExempt'].map(
      extension,
    ),
  ],
  classes: ['courseSourcedId', 'termSourcedIds', ...['number', 'startsOn', 'endsOn', 'seats'].map(extension)],
  enrollments: ['userSourcedId', 'classSourcedId', 'beginDate', 'endDate'],
  categories: ['title'],
  lineItems: [
    'title',
    'dueDate',
    'categorySourcedId',
    'gradingPeriodSourcedId',
    'resultValueMax',
    ...['extra', 'counted', 'published', 'students'].map(extension),
  ],
  results: ['scoreStatus', 'score', extension('flag')],
  scoreScales: ['title', 'scoreScaleValue'],
};

/** Where a blank is a statement: nobody left, nothing is scored. Elsewhere a blank says nothing. */
const blankSays = new Set(['endDate', 'score']);

/** Whether a row says anything about a field; a column that the zip does not have never does. */
export function isStated(row: ExchangeRow, field: string): boolean {
  return row[field] !== undefined && (row[field] !== '' || blankSays.has(field));
}

/** What of ours holds only as long as the standard's own word beside it stays what it was. */
const dependsOn: Readonly<Record<string, string>> = { [extension('flag')]: 'scoreStatus', [extension('kind')]: 'type' };

/** A row as it would be here: what it leaves unsaid stays what it is, so that nothing is lost by silence. */
export function completed(row: ExchangeRow, own: ExchangeRow): ExchangeRow {
  const said = Object.fromEntries(Object.entries(row).filter(([field]) => isStated(row, field)));
  const stays = Object.entries(own).filter(([field]) => {
    const word = dependsOn[field];
    return word === undefined || said[word] === undefined || said[word] === own[word];
  });
  return { ...Object.fromEntries(stays), ...said };
}

export function heldFields(file: ExchangeFile, row: ExchangeRow): readonly string[] {
  return isTeaching(file, row) ? ['userSourcedId', 'classSourcedId', 'primary'] : held[file];
}

/** That somebody teaches a class stands at the section here, without dates and without a number of its own. */
export function isTeaching(file: ExchangeFile, { role }: ExchangeRow): boolean {
  return file === 'enrollments' && role === 'teacher';
}

/** The fields by which a row is known, where it is not its own id. */
export const keyFields: Readonly<Partial<Record<ExchangeFile, readonly string[]>>> = {
  enrollments: ['classSourcedId', 'userSourcedId'],
  results: ['lineItemSourcedId', 'studentSourcedId'],
};

/** Stands between the ids of a key: a sign that no id holds (U+001F, the unit separator). */
export const betweenKeys = '\u001F';

/** By this a row is the same row elsewhere: a result is a student's on a line item, an enrollment a person's in a class. */
export function keyOf(file: ExchangeFile, row: ExchangeRow): string {
  const fields = keyFields[file];
  return fields ? fields.map((field) => row[field]).join(betweenKeys) : (row['sourcedId'] ?? '');
}

const staffRoles = [
  'teacher',
  'administrator',
  'aide',
  'proctor',
  'counselor',
  'principal',
  'siteAdministrator',
  'systemAdministrator',
  'districtAdministrator',
];

/** Whether a person is a student or works here, by the user's own role or by the roles file; undefined for neither. */
export function kindOfPerson(roles: readonly string[]): 'student' | 'staff' | undefined {
  if (roles.includes('student')) return 'student';
  return roles.some((role) => staffRoles.includes(role)) ? 'staff' : undefined;
}

/** The roles of every user, from whichever file says them. */
export function rolesByUser(...all: readonly ExchangeRows[]): ReadonlyMap<string, readonly string[]> {
  const roles = new Map<string, string[]>();
  const add = (id: string | undefined, role: string | undefined) => {
    if (id && role) roles.set(id, [...(roles.get(id) ?? []), role]);
  };
  for (const { users = [], roles: rows = [] } of all) {
    for (const { sourcedId, role } of users) add(sourcedId, role);
    for (const { userSourcedId, role } of rows) add(userSourcedId, role);
  }
  return roles;
}

/** The organisations at which roles have each person. */
export function orgsByUser(rows: ExchangeRows): ReadonlyMap<string, readonly string[]> {
  const orgs = new Map<string, string[]>();
  for (const { userSourcedId = '', orgSourcedId = '' } of rows.roles ?? [])
    orgs.set(userSourcedId, [...(orgs.get(userSourcedId) ?? []), orgSourcedId]);
  return orgs;
}

/** What it takes to say whether a row is held. */
export interface HeldContext {
  /** The teacher of each class. */
  readonly teachers: ReadonlyMap<string, string>;
  /** The last stay of each student in each class. */
  readonly stays: ReadonlyMap<string, ExchangeRow>;
  /** The day it is. */
  readonly today: string;
  /** Id of the one district. */
  readonly district: string | undefined;
  /** The schools that have each course. */
  readonly courses: ReadonlyMap<string, ReadonlySet<string>>;
}

/** Why Wombat holds nothing of a row; undefined where it does. */
export function whyNotHeld(
  file: ExchangeFile,
  row: ExchangeRow,
  roles: ReadonlyMap<string, readonly string[]>,
  { teachers, stays, district, courses }: HeldContext,
): ExchangeFault | undefined {
  const left = (field: string, says: string): ExchangeFault => ({ field, says });
  if (file === 'orgs' && row['type'] !== 'school' && row['sourcedId'] !== district)
    return left('type', `Wombat holds one district and its schools; this ${row['type']} is skipped`);
  const isGoing = row['status'] === 'tobedeleted';
  const person = file === 'roles' ? row['userSourcedId'] : row['sourcedId'];
  if ((file === 'users' || file === 'roles' || file === 'demographics') && !isGoing) {
    const own = roles.get(person ?? '') ?? [];
    if (kindOfPerson(own) === undefined)
      return left('role', `Wombat holds students and staff; ${own.join(', ') || 'a person without a role'} is skipped`);
  }
  if (file === 'demographics' && !isGoing && !row['birthDate'])
    return left('birthDate', 'Wombat holds dates of birth alone; this row has none');
  if (file === 'courses' && !courses.has(row['sourcedId'] ?? ''))
    return left(
      'orgSourcedId',
      'no class of any school takes this course of the district; it comes with the first one',
    );
  if (file === 'results' && !isGoing && isGradedWithoutScore(row))
    return left('score', row['textScore'] ? 'Wombat scores in points; a text score alone is skipped' : 'it is blank');
  if (file === 'enrollments' && !isGoing && row['role'] !== 'student' && row['role'] !== 'teacher')
    return left('role', `Wombat holds students and teachers of a class; a ${row['role']} is skipped`);
  if (isTeaching(file, row) && isGoing && isTeacherOf(row, teachers))
    return left('status', 'every section has a teacher: this one stays until the rows name another');
  if (file === 'enrollments' && row['role'] === 'student' && (stays.get(keyOf(file, row)) ?? row) !== row)
    return left('beginDate', 'an earlier stay in the class; the last one counts');
  return undefined;
}

/** Whether a row is of who teaches the class, and not of a co-teacher. */
export function isTeacherOf(row: ExchangeRow, teachers: ReadonlyMap<string, string>): boolean {
  return teachers.get(row['classSourcedId'] ?? '') === row['userSourcedId'];
}

/** Whether a row is of a co-teacher who has stopped: Wombat holds who teach a section now, without days. */
export function hasStopped(file: ExchangeFile, row: ExchangeRow, { teachers, today }: HeldContext): boolean {
  const until = row['endDate']?.slice(0, 10) ?? '';
  return isTeaching(file, row) && until !== '' && until < today && !isTeacherOf(row, teachers);
}

/** Said to be graded, and no points are there. */
function isGradedWithoutScore({ scoreStatus, score }: ExchangeRow): boolean {
  return score === '' && (scoreStatus === 'fully graded' || scoreStatus === 'partially graded');
}

/** Of several stays of a student in one class the last to begin. */
export function lastStays(enrollments: readonly ExchangeRow[]): ReadonlyMap<string, ExchangeRow> {
  const stays = new Map<string, ExchangeRow>();
  for (const row of enrollments) {
    if (row['role'] !== 'student' || row['status'] === 'tobedeleted') continue;
    const known = stays.get(keyOf('enrollments', row));
    if (!known || (known['beginDate'] ?? '') <= (row['beginDate'] ?? '')) stays.set(keyOf('enrollments', row), row);
  }
  return stays;
}
