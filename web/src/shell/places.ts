import type { PeriodReply } from '#contract/calendar';
import type { PersonReply } from '#contract/people';

/** A place in the application: where it is and what it is called. */
export interface Place {
  readonly path: string;
  readonly name: string;
  readonly isForRegistrars?: boolean;
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
  open: ({ posting }) => (posting && !posting.sealedAt ? posting.sections - posting.sectionsComplete : 0),
};

/** The work in its order. */
export const steps: readonly Step[] = [
  {
    name: 'Set up',
    places: [
      { path: 'scales', name: 'Scales' },
      { path: 'calendar', name: 'Calendar' },
      { path: 'people', name: 'People' },
      { path: 'report-items', name: 'Report items' },
      { path: 'courses', name: 'Courses' },
      { path: 'sections', name: 'Sections' },
      { path: 'enrollments', name: 'Enrollments' },
      { path: 'calculation', name: 'Calculation' },
      { path: 'set-up', name: 'Check' },
    ],
  },
  {
    name: 'Map',
    places: [
      { path: 'platforms', name: 'Platforms' },
      { path: 'matches', name: 'Matches' },
      { path: 'runs', name: 'Runs' },
      { path: 'files', name: 'Files' },
    ],
  },
  { name: 'Collect', places: [gradeSheets, { path: 'outbox', name: 'Outbox', isForRegistrars: true }] },
  {
    name: 'Audit',
    places: [{ path: 'findings', name: 'Findings', open: ({ posting }) => posting?.audit?.findings ?? 0 }],
  },
  {
    name: 'Transcripts',
    places: [
      { path: 'seal', name: 'Seal' },
      { path: 'students', name: 'Students' },
    ],
  },
];

/** Where a registrar begins, and what stands beside the path. */
export const today: Place = { path: 'today', name: 'Today' };
export const besides: readonly Place[] = [
  { path: 'exchange', name: 'Exchange' },
  { path: 'log', name: 'Log' },
  { path: 'accounts', name: 'Accounts' },
];

/** All places that somebody can go to. */
export function allPlacesOf(person: PersonReply): readonly Place[] {
  const own = placesOf(person).flatMap(({ places }) => places);
  return person.role === 'registrar' ? [today, ...own, ...besides] : own;
}

/** A teacher posts; the rest of the path is not theirs. */
export function placesOf({ role }: PersonReply): readonly Step[] {
  if (role === 'registrar') return steps;
  const own = steps.filter(({ name }) => name === 'Collect');
  return own.map(({ name, places }) => ({ name, places: places.filter((place) => !place.isForRegistrars) }));
}
