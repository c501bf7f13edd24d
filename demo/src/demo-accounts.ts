import type { Grant } from '#core/access';

export interface DemoAccount {
  readonly username: string;
  readonly givenName: string;
  readonly familyName: string;
  readonly grants: readonly Grant[];
  readonly does: string;
  /** The school whose staff they are. */
  readonly schoolId: number;
  /** Which of the school's drawn teachers they are, from 0; nobody of them where they do not teach. */
  readonly teacher: number | null;
}

/** The people who can sign in to the demo, and who they are in it. */
export const demoAccounts: readonly DemoAccount[] = [
  {
    username: 'morwenna',
    givenName: 'Morwenna',
    familyName: 'Oake',
    grants: [{ role: 'registrar', schoolId: null }],
    does: 'registrar of the district: everything',
    schoolId: 1,
    teacher: null,
  },
  {
    username: 'harun',
    givenName: 'Harun',
    familyName: 'Nance',
    grants: [{ role: 'teacher', schoolId: 1 }],
    does: 'teacher at the Upper School: the grade sheets of his sections',
    schoolId: 1,
    teacher: 0,
  },
  {
    username: 'ottilie',
    givenName: 'Ottilie',
    familyName: 'Brandreth',
    grants: [{ role: 'grading-administrator', schoolId: null }],
    does: 'grading administrator of the district: set-up, mapping and audit, no sealing',
    schoolId: 1,
    teacher: null,
  },
  {
    username: 'ruben',
    givenName: 'Ruben',
    familyName: 'Varley',
    grants: [
      { role: 'teacher', schoolId: 1 },
      { role: 'approver', schoolId: 1 },
    ],
    does: 'head of a department at the Upper School: teaches, and reads the grades of the school as an approver',
    schoolId: 1,
    teacher: 1,
  },
  {
    username: 'sunniva',
    givenName: 'Sunniva',
    familyName: 'Holloway',
    grants: [{ role: 'viewer', schoolId: 1 }],
    does: 'counsellor at the Upper School: reads, and changes nothing',
    schoolId: 1,
    teacher: null,
  },
  {
    username: 'mirela',
    givenName: 'Mirela',
    familyName: 'Dunmore',
    grants: [{ role: 'teacher', schoolId: 2 }],
    does: 'teacher at the Primary School',
    schoolId: 2,
    teacher: 0,
  },
  {
    username: 'tobiah',
    givenName: 'Tobiah',
    familyName: 'Finchley',
    grants: [{ role: 'teacher', schoolId: 3 }],
    does: 'teacher at the College',
    schoolId: 3,
    teacher: 0,
  },
];

/** The same for all of them, as nothing here is secret. */
export const demoPassword = 'low-tide';
