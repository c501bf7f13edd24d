/*
 * The files, fields and words of the CSV binding of OneRoster 1.1 and 1.2 (1EdTech; from memory). Only what Wombat reads
 * or writes is checked in full; of the other files the manifest may speak, and nothing of them is taken.
 */

export const exchangeVersions = ['1.1', '1.2'] as const;
export type ExchangeVersion = (typeof exchangeVersions)[number];

/** The files that Wombat reads and writes, each after those that it refers to. */
export const exchangeFiles = [
  'orgs',
  'academicSessions',
  'users',
  'roles',
  'demographics',
  'courses',
  'classes',
  'enrollments',
  'categories',
  'lineItems',
  'results',
  'scoreScales',
] as const;
export type ExchangeFile = (typeof exchangeFiles)[number];

/** Files of the standard of which Wombat holds nothing. */
export const otherFiles = [
  'classResources',
  'courseResources',
  'lineItemLearningObjectiveIds',
  'lineItemScoreScales',
  'resources',
  'resultLearningObjectiveIds',
  'resultScoreScales',
  'userProfiles',
  'userResources',
] as const;

export type FieldKind =
  | { readonly is: 'id' | 'text' | 'day' | 'number' | 'points' | 'credits' | 'yesNo' }
  | { readonly is: 'oneOf'; readonly words: readonly string[] }
  | { readonly is: 'pattern'; readonly pattern: RegExp; readonly says: string }
  /** An id, or several with commas between, of rows in another file. */
  | { readonly is: 'reference'; readonly to: ExchangeFile; readonly isList?: true };

export interface ExchangeField {
  readonly name: string;
  readonly kind: FieldKind;
  readonly isRequired?: true;
  /** The only version that has the field; both where nothing is said. */
  readonly only?: ExchangeVersion;
}

const text = (name: string, only?: ExchangeVersion): ExchangeField => ({
  name,
  kind: { is: 'text' },
  ...(only && { only }),
});
const needed = (name: string, kind: FieldKind = { is: 'text' }, only?: ExchangeVersion): ExchangeField => ({
  name,
  kind,
  isRequired: true,
  ...(only && { only }),
});
const oneOf = (...words: string[]): FieldKind => ({ is: 'oneOf', words });
const reference = (to: ExchangeFile): FieldKind => ({ is: 'reference', to });
const references = (to: ExchangeFile): FieldKind => ({ is: 'reference', to, isList: true });
const day: FieldKind = { is: 'day' };

/** Every file begins with these; in a bulk file status and date stay blank. */
export const leadingFields: readonly ExchangeField[] = [
  needed('sourcedId', { is: 'id' }),
  { name: 'status', kind: oneOf('active', 'tobedeleted') },
  { name: 'dateLastModified', kind: { is: 'text' } },
];

const roles11 = ['administrator', 'aide', 'guardian', 'parent', 'proctor', 'relative', 'student', 'teacher'];
const roles12 = [
  ...roles11,
  'counselor',
  'districtAdministrator',
  'principal',
  'siteAdministrator',
  'systemAdministrator',
];

const standardFields: Readonly<Record<ExchangeFile, readonly ExchangeField[]>> = {
  orgs: [
    needed('name'),
    needed('type', oneOf('department', 'school', 'district', 'local', 'state', 'national')),
    text('identifier'),
    { name: 'parentSourcedId', kind: reference('orgs') },
  ],
  academicSessions: [
    needed('title'),
    needed('type', oneOf('gradingPeriod', 'semester', 'schoolYear', 'term')),
    needed('startDate', day),
    needed('endDate', day),
    { name: 'parentSourcedId', kind: reference('academicSessions') },
    needed('schoolYear'),
  ],
  users: [
    needed('enabledUser', { is: 'yesNo' }),
    needed('orgSourcedIds', references('orgs'), '1.1'),
    needed('role', oneOf(...roles11), '1.1'),
    needed('username'),
    text('userIds'),
    needed('givenName'),
    needed('familyName'),
    text('middleName'),
    text('identifier'),
    text('email'),
    text('sms'),
    text('phone'),
    text('agentSourcedIds'),
    text('grades'),
    text('password'),
    text('userMasterIdentifier', '1.2'),
    text('resourceSourcedIds', '1.2'),
    text('preferredGivenName', '1.2'),
    text('preferredMiddleName', '1.2'),
    text('preferredFamilyName', '1.2'),
    { name: 'primaryOrgSourcedId', kind: reference('orgs'), only: '1.2' },
    text('pronouns', '1.2'),
  ],
  roles: [
    needed('userSourcedId', reference('users')),
    needed('roleType', oneOf('primary', 'secondary')),
    needed('role', oneOf(...roles12)),
    { name: 'beginDate', kind: day },
    { name: 'endDate', kind: day },
    needed('orgSourcedId', reference('orgs')),
    text('userProfileSourcedId'),
  ],
  demographics: [
    { name: 'birthDate', kind: day },
    text('sex'),
    text('americanIndianOrAlaskaNative'),
    text('asian'),
    text('blackOrAfricanAmerican'),
    text('nativeHawaiianOrOtherPacificIslander'),
    text('white'),
    text('demographicRaceTwoOrMoreRaces'),
    text('hispanicOrLatinoEthnicity'),
    text('countryOfBirthCode'),
    text('stateOfBirthAbbreviation'),
    text('cityOfBirth'),
    text('publicSchoolResidenceStatus'),
  ],
  courses: [
    { name: 'schoolYearSourcedId', kind: reference('academicSessions') },
    needed('title'),
    text('courseCode'),
    text('grades'),
    needed('orgSourcedId', reference('orgs')),
    text('subjects'),
    text('subjectCodes'),
  ],
  classes: [
    needed('title'),
    text('grades'),
    needed('courseSourcedId', reference('courses')),
    text('classCode'),
    needed('classType', oneOf('homeroom', 'scheduled')),
    text('location'),
    needed('schoolSourcedId', reference('orgs')),
    needed('termSourcedIds', references('academicSessions')),
    text('subjects'),
    text('subjectCodes'),
    text('periods'),
  ],
  enrollments: [
    needed('classSourcedId', reference('classes')),
    needed('schoolSourcedId', reference('orgs')),
    needed('userSourcedId', reference('users')),
    needed('role', oneOf(...roles11)),
    { name: 'primary', kind: { is: 'yesNo' } },
    { name: 'beginDate', kind: day },
    { name: 'endDate', kind: day },
  ],
  categories: [needed('title'), { name: 'weight', kind: { is: 'number' }, only: '1.2' }],
  lineItems: [
    needed('title'),
    text('description'),
    { name: 'assignDate', kind: day },
    needed('dueDate', day),
    needed('classSourcedId', reference('classes')),
    needed('categorySourcedId', reference('categories')),
    { name: 'gradingPeriodSourcedId', kind: reference('academicSessions') },
    { name: 'resultValueMin', kind: { is: 'number' } },
    { name: 'resultValueMax', kind: { is: 'points' } },
    { name: 'academicSessionSourcedId', kind: reference('academicSessions'), only: '1.2' },
    { name: 'schoolSourcedId', kind: reference('orgs'), only: '1.2' },
  ],
  results: [
    needed('lineItemSourcedId', reference('lineItems')),
    needed('studentSourcedId', reference('users')),
    needed('scoreStatus', oneOf('exempt', 'fully graded', 'not submitted', 'partially graded', 'submitted')),
    { name: 'score', kind: { is: 'points' } },
    { name: 'scoreDate', kind: day },
    text('comment'),
    text('textScore', '1.2'),
    { name: 'classSourcedId', kind: reference('classes'), only: '1.2' },
    text('inProgress', '1.2'),
    text('incomplete', '1.2'),
    text('late', '1.2'),
    text('missing', '1.2'),
  ],
  scoreScales: [
    needed('title'),
    text('type'),
    { name: 'orgSourcedId', kind: reference('orgs') },
    { name: 'courseSourcedId', kind: reference('courses') },
    { name: 'classSourcedId', kind: reference('classes') },
    needed('scoreScaleValue'),
  ],
};

/** Files that only the later version has. */
const laterFiles: readonly ExchangeFile[] = ['roles', 'scoreScales'];

export function filesOf(version: ExchangeVersion): ExchangeFile[] {
  return exchangeFiles.filter((file) => version === '1.2' || !laterFiles.includes(file));
}

/** The fields of a file in their order. */
export function fieldsOf(file: ExchangeFile, version: ExchangeVersion): ExchangeField[] {
  return [...leadingFields, ...standardFields[file].filter(({ only }) => only === undefined || only === version)];
}

/** Columns beyond the standard's own, which it allows under this beginning. */
export const extensionStart = 'metadata.';

/** What Wombat keeps beyond the standard's fields, in columns that the standard allows for that. */
export const extension = (name: string) => `${extensionStart}wombat.${name}`;

const own = (name: string, kind: FieldKind): ExchangeField => ({ name: extension(name), kind });
const yesNo: FieldKind = { is: 'yesNo' };
const credits: FieldKind = { is: 'credits' };
const seats: FieldKind = { is: 'pattern', pattern: /^[1-9]\d{0,2}$/, says: 'a number from 1 to 999' };
const small: FieldKind = { is: 'pattern', pattern: /^\d{1,4}$/, says: 'a number from 0 to 9999' };

/** Our own columns whose values something hangs on; anybody may have changed them meanwhile. */
const checkedOwnFields: Readonly<Partial<Record<ExchangeFile, readonly ExchangeField[]>>> = {
  academicSessions: [own('kind', oneOf('year', 'semester', 'quarter', 'trimester', 'term'))],
  courses: [
    own('level', oneOf('regular', 'honours', 'college')),
    own('length', oneOf('year', 'semester', 'term')),
    own('credits', credits),
    own('mostCredits', credits),
    own('onTranscript', yesNo),
    own('countsInGpa', yesNo),
    own('allowsExempt', yesNo),
  ],
  users: [own('enteredOn', day), own('leftOn', day), own('pronoun', oneOf('she', 'he', 'they'))],
  classes: [own('number', small), own('startsOn', day), own('endsOn', day), own('seats', seats)],
  lineItems: [own('extra', yesNo), own('counted', yesNo), own('published', yesNo)],
  results: [own('flag', oneOf('missing', 'late', 'incomplete', 'exempt', 'absent', 'collected'))],
  scoreScales: [
    own('scaleKind', oneOf('percent', 'level', 'choice')),
    own('highestLevel', { is: 'pattern', pattern: /^\d{1,3}(\.\d{1,2})?$/, says: 'a level such as 4' }),
  ],
};

/** A field of either version, or a checked one of ours. */
export function fieldOf(file: ExchangeFile, name: string): ExchangeField | undefined {
  return fieldsByName[file].get(name);
}

const fieldsByName = Object.fromEntries(
  exchangeFiles.map((file) => {
    const fields = [...leadingFields, ...standardFields[file], ...(checkedOwnFields[file] ?? [])];
    return [file, new Map(fields.map((field) => [field.name, field]))];
  }),
) as unknown as Readonly<Record<ExchangeFile, ReadonlyMap<string, ExchangeField>>>;

export function ownFields(file: ExchangeFile): readonly ExchangeField[] {
  return checkedOwnFields[file] ?? [];
}

export type ExchangeRow = Readonly<Record<string, string>>;
export type ExchangeRows = Readonly<Partial<Record<ExchangeFile, readonly ExchangeRow[]>>>;
