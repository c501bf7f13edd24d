import type { Action } from '#core/access';
import type { PeriodReply, SchoolReply } from '#contract/calendar';
import type { PersonReply } from '#contract/people';
import { mayIn } from './access';

/** A place in the application: where it is and what it is called. */
export interface Place {
  readonly path: string;
  readonly name: string;
  /** What it takes to go there. */
  readonly read: Action;
  /** What it takes to change anything there, where the place does not say so thing by thing. */
  readonly change?: Action;
  /** Its views of what all schools share, by their name in the address; only a role for all of them changes that. */
  readonly shared?: Readonly<Record<string, string>>;
  /** The schools that have it, and what it takes to turn it on where it is not; without it, all schools have it. */
  readonly isOf?: { readonly school: (school: SchoolReply) => boolean; readonly turnedOnBy: Action };
  /** What is open there, for the small figure beside it. */
  readonly open?: (period: PeriodReply) => number;
}

export interface Step {
  readonly name: string;
  readonly places: readonly Place[];
}

const gradeSheets: Place = {
  path: 'grade-sheets',
  name: 'Grade sheets',
  read: 'read-grades',
  open: ({ posting }) => (posting && !posting.sealedAt ? posting.sections - posting.sectionsComplete : 0),
};

/** The work in its order. */
export const steps: readonly Step[] = [
  {
    name: 'Set up',
    places: [
      {
        path: 'scales',
        name: 'Scales',
        read: 'read-set-up',
        change: 'change-set-up',
        shared: { codes: 'Codes', gpa: 'GPA' },
      },
      { path: 'calendar', name: 'Calendar', read: 'read-set-up', change: 'change-set-up' },
      { path: 'people', name: 'People', read: 'read-people', change: 'change-people' },
      { path: 'report-items', name: 'Report items', read: 'read-set-up', change: 'change-set-up' },
      { path: 'courses', name: 'Courses', read: 'read-set-up', change: 'change-set-up' },
      { path: 'sections', name: 'Sections', read: 'read-set-up', change: 'change-set-up' },
      { path: 'enrollments', name: 'Enrollments', read: 'read-people', change: 'change-people' },
      { path: 'calculation', name: 'Calculation', read: 'read-set-up', change: 'change-set-up' },
      { path: 'set-up', name: 'Check', read: 'read-set-up', change: 'change-set-up' },
    ],
  },
  {
    name: 'Map',
    places: [
      { path: 'platforms', name: 'Platforms', read: 'read-map', change: 'map' },
      { path: 'matches', name: 'Matches', read: 'read-map', change: 'map' },
      { path: 'runs', name: 'Runs', read: 'read-map', change: 'map' },
      { path: 'files', name: 'Files', read: 'read-map', change: 'map' },
    ],
  },
  {
    name: 'Collect',
    places: [
      { path: 'board', name: 'Board', read: 'read-findings', change: 'read-outbox' },
      gradeSheets,
      {
        path: 'attendance',
        name: 'Attendance',
        read: 'read-grades',
        change: 'post-grades',
        isOf: { school: ({ takesAttendance }) => takesAttendance, turnedOnBy: 'change-shared-set-up' },
      },
      { path: 'receipts', name: 'Receipts', read: 'post-grades' },
      { path: 'outbox', name: 'Outbox', read: 'read-outbox' },
    ],
  },
  {
    name: 'Audit',
    places: [
      {
        path: 'findings',
        name: 'Findings',
        read: 'read-findings',
        change: 'audit',
        open: ({ posting }) => posting?.audit?.findings ?? 0,
      },
    ],
  },
  {
    name: 'Transcripts',
    places: [
      { path: 'seal', name: 'Seal', read: 'read-transcripts', change: 'seal' },
      { path: 'students', name: 'Students', read: 'read-transcripts' },
    ],
  },
];

/** Where a registrar begins, and what stands beside the path. */
export const today: Place = { path: 'today', name: 'Today', read: 'read-set-up' };
export const besides: readonly Place[] = [
  { path: 'exchange', name: 'Exchange', read: 'exchange' },
  { path: 'log', name: 'Log', read: 'read-log' },
  { path: 'accounts', name: 'Accounts', read: 'manage-access' },
];

/** All places of a school that somebody can go to. @param school as it is known; undefined while it is asked for */
export function allPlacesOf(person: PersonReply, schoolId: number, school?: SchoolReply): readonly Place[] {
  return [today, ...placesOf(person, schoolId, school).flatMap(({ places }) => places), ...besides].filter((place) =>
    mayGo(person, schoolId, place),
  );
}

/** The steps that somebody has a part in, with their places. */
export function placesOf(person: PersonReply, schoolId: number, school?: SchoolReply): readonly Step[] {
  const isThere = ({ isOf }: Place) =>
    !isOf || (school !== undefined && isOf.school(school)) || mayIn(person, schoolId, isOf.turnedOnBy);
  return steps
    .map(({ name, places }) => ({
      name,
      places: places.filter((place) => mayGo(person, schoolId, place) && isThere(place)),
    }))
    .filter(({ places }) => places.length > 0);
}

export function mayGo(person: PersonReply, schoolId: number, { read }: Place): boolean {
  return mayIn(person, schoolId, read);
}

const everyPlace = [today, ...steps.flatMap(({ places }) => places), ...besides];

/** The place of an address such as "/school/1/period/4/runs/7". */
export function placeAt(pathname: string): Place | undefined {
  const [, , , , , path] = pathname.split('/');
  return everyPlace.find((place) => place.path === path);
}
