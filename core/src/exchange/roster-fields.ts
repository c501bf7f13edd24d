import { listOf } from './check-rows.js';
import { fieldOf, type ExchangeFile, type ExchangeRow } from './exchange-format.js';

/** What a roster said in a row beyond what Wombat works with. */
export interface RosterFields {
  readonly said: ExchangeRow;
  /** What Wombat made of some fields then: what was said beside them holds only as long as they stay so. */
  readonly beside: ExchangeRow;
}

/**
 * Fields that Wombat does not work with, or only in part, and gives out again as they came. Left out on purpose are passwords,
 * ids of rows that Wombat holds nothing of (guardians, resources), and what no grade needs to know of a child.
 */
const rosterFields: Readonly<Record<ExchangeFile, readonly string[]>> = {
  orgs: ['identifier'],
  academicSessions: ['schoolYear'],
  users: [
    'enabledUser',
    'orgSourcedIds',
    'primaryOrgSourcedId',
    'role',
    'username',
    'userIds',
    'middleName',
    'sms',
    'phone',
    'userMasterIdentifier',
    'preferredMiddleName',
    'preferredFamilyName',
    'pronouns',
  ],
  roles: ['userSourcedId', 'roleType', 'role', 'beginDate', 'endDate', 'orgSourcedId'],
  demographics: [],
  courses: ['schoolYearSourcedId', 'courseCode', 'grades', 'orgSourcedId', 'subjects', 'subjectCodes'],
  classes: [
    'title',
    'grades',
    'classCode',
    'classType',
    'location',
    'termSourcedIds',
    'subjects',
    'subjectCodes',
    'periods',
  ],
  enrollments: [],
  categories: ['weight'],
  lineItems: ['description', 'assignDate', 'resultValueMin', 'academicSessionSourcedId'],
  results: ['sourcedId', 'scoreDate', 'comment', 'textScore', 'classSourcedId', 'inProgress'],
  scoreScales: ['type', 'orgSourcedId', 'courseSourcedId', 'classSourcedId'],
};

/** That somebody teaches stands at the section here, and a row of it is otherwise the roster's. */
const fieldsOfTeaching = ['sourcedId', 'primary', 'beginDate', 'endDate'];

/** Fields of which Wombat keeps a part: what was said of the rest goes with that part. */
const goesWith: Partial<Record<ExchangeFile, Readonly<Record<string, string>>>> = {
  orgs: { identifier: 'identifier' },
  courses: { courseCode: 'courseCode', subjects: 'subjects' },
  classes: { termSourcedIds: 'termSourcedIds' },
  results: { scoreDate: 'score', comment: 'score', textScore: 'score', inProgress: 'score' },
};

export function rosterFieldsOf(file: ExchangeFile, row: ExchangeRow): readonly string[] {
  return file === 'enrollments' && row['role'] === 'teacher' ? fieldsOfTeaching : rosterFields[file];
}

/** Whether there is a row here, of a file and with an id. */
export type IsHeld = (file: ExchangeFile, id: string) => boolean;

/** What a roster's field says, without ids of rows that Wombat does not hold: nothing that goes out leads nowhere. */
export function saidIn(file: ExchangeFile, field: string, row: ExchangeRow, isHeld: IsHeld): string | undefined {
  const said = row[field];
  const kind = fieldOf(file, field)?.kind;
  if (!said || kind?.is !== 'reference') return said;
  return listOf(said).filter((id) => isHeld(kind.to, id)).join(',') || undefined; // prettier-ignore
}

/**
 * What has to be kept of a row beside what Wombat makes of it by itself: where the two differ, also where the row is blank.
 * Undefined where nothing would be lost.
 * @param made the row as it would go out without that
 */
export function fieldsToKeep(
  file: ExchangeFile,
  row: ExchangeRow,
  made: ExchangeRow,
  isHeld: IsHeld,
): RosterFields | undefined {
  const said = (field: string) => saidIn(file, field, row, isHeld);
  const fields = rosterFieldsOf(file, row).filter((field) => ![undefined, made[field] ?? ''].includes(said(field)));
  if (fields.length === 0) return undefined;
  const besides = fields.flatMap((field) => goesWith[file]?.[field] ?? []);
  return {
    said: Object.fromEntries(fields.map((field) => [field, said(field)!])),
    beside: Object.fromEntries(besides.map((field) => [field, made[field] ?? ''])),
  };
}

/** A row as it goes out: what was kept of it stands over what Wombat makes. */
export function withRosterFields(file: ExchangeFile, made: ExchangeRow, kept: RosterFields | undefined): ExchangeRow {
  if (!kept) return made;
  const holds = ([field]: [string, string]) => {
    const besides = goesWith[file]?.[field];
    return besides === undefined || kept.beside[besides] === (made[besides] ?? '');
  };
  return { ...made, ...Object.fromEntries(Object.entries(kept.said).filter(holds)) };
}
