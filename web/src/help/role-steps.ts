import { roles, type Role } from '#core/access';
import type { PersonReply } from '#contract/people';

/** Something that somebody new does first, and the place where it is done; without a path it is done anywhere. */
export interface RoleStep {
  readonly does: string;
  /** In a sentence, for who has never done it. */
  readonly how: string;
  readonly path?: string;
}

const findStudent: RoleStep = {
  does: 'Find a student',
  how: 'Press / and type a name or a number; misspelled names are found too.',
  path: 'students',
};
const ownView: RoleStep = {
  does: 'Choose your view',
  how: 'The menu at the top right has your view: order of names, rows, days and keys. Nobody else’s changes.',
};

/** What each role does first; somebody with several has those of the widest. */
const stepsOfRole: Readonly<Record<Role, readonly RoleStep[]>> = {
  registrar: [
    { does: 'Check the set-up', how: 'It lists what would go wrong, each with the way to mend it.', path: 'set-up' },
    { does: 'Invite the teachers', how: 'Each gets a message with a link that works once.', path: 'accounts' },
    {
      does: 'Watch what is posted',
      how: 'Late sheets come first; remind their teachers, or open one to see who lacks what.',
      path: 'board',
    },
    { does: 'Audit the period', how: 'Each finding shows its evidence and leads to the grade.', path: 'findings' },
    {
      does: 'Seal it',
      how: 'What is sealed stands on the transcript, and changes there no more by itself.',
      path: 'seal',
    },
  ],
  'grading-administrator': [
    {
      does: 'Look at the scales',
      how: 'Drag a cut-off on the ruler; the preview says whose label would change.',
      path: 'scales',
    },
    {
      does: 'Say what is reported',
      how: 'Report items come to courses by rules; the coverage table shows all of them.',
      path: 'report-items',
    },
    { does: 'Check the set-up', how: 'It lists what would go wrong, each with the way to mend it.', path: 'set-up' },
    {
      does: 'Match a learning platform',
      how: 'One decision settles all sections where a group has the same name.',
      path: 'matches',
    },
    { does: 'Audit the period', how: 'Each finding shows its evidence and leads to the grade.', path: 'findings' },
  ],
  teacher: [
    {
      does: 'Open a grade sheet',
      how: 'Sections that lack grades come first, with their number.',
      path: 'grade-sheets',
    },
    {
      does: 'Type the grades',
      how: 'A percentage fills the label. Enter goes on to the next student, n to the next problem.',
    },
    { does: 'Save', how: 'Ctrl+S saves all of it or nothing; what is typed stays until it is saved.' },
    { does: 'Sign off', how: 'It lists what is still missing, takes a note, and goes on to the next sheet.' },
    { does: 'Ask how a number came about', how: 'Press w on it: the workings show every step.' },
    ownView,
  ],
  approver: [
    findStudent,
    { does: 'Read the grade sheets', how: 'What is computed stands beside what is posted.', path: 'grade-sheets' },
    { does: 'Read the findings', how: 'Each says why it matters, with its evidence.', path: 'findings' },
    ownView,
  ],
  viewer: [
    findStudent,
    {
      does: 'Read a transcript',
      how: 'Every GPA shows its workings; that you read it is noted in the student’s history.',
      path: 'students',
    },
    { does: 'Read the grade sheets', how: 'What is computed stands beside what is posted.', path: 'grade-sheets' },
    ownView,
  ],
};

/** The widest role that somebody holds at a school, and its first steps; undefined for who holds none there. */
export function roleStepsOf(
  person: PersonReply,
  schoolId: number,
): { readonly role: Role; readonly steps: readonly RoleStep[] } | undefined {
  const role = roles.find((each) =>
    person.grants.some((grant) => grant.role === each && (grant.schoolId ?? schoolId) === schoolId),
  );
  return role && { role, steps: stepsOfRole[role] };
}
