import { bodyOfPolicy, type AssignmentReply, type BookReply, type ScoreReply } from '#contract/calculation';
import { plainPolicy, type CalculationPolicy } from '#core/calculation';
import { decimalOrThrow } from '#core/numbers';

/** Work counts 60 and drops nothing, tests count 40. */
export const policy: CalculationPolicy = {
  ...plainPolicy,
  method: 'categoryPoints',
  categories: [
    { categoryId: 1, weight: decimalOrThrow('60'), dropLowest: 0, cap: null },
    { categoryId: 2, weight: decimalOrThrow('40'), dropLowest: 0, cap: null },
  ],
};

const assignment = (id: number, categoryId: number, possible: string, more: Partial<AssignmentReply> = {}) => ({
  id,
  categoryId,
  possible,
  name: `Assignment ${id}`,
  dueOn: `2026-01-0${id}`,
  isExtra: false,
  isCounted: true,
  isPublished: true,
  givenTo: null,
  version: 1,
  ...more,
});
const score = (assignmentId: number, enrollmentId: number, points: string | null, flag: ScoreReply['flag'] = null) => ({
  assignmentId,
  enrollmentId,
  points,
  flag,
  version: 2,
});
const student = (enrollmentId: number, name: string, posted: string | null = null) => ({
  enrollmentId,
  studentId: enrollmentId,
  student: name,
  studentNumber: `s${enrollmentId}`,
  withdrawnOn: null,
  posted: posted === null ? null : { percent: posted, mark: 'P' },
});

/** Two students, two pieces of work out of 10, a test out of 50 and an extra one out of 5 that only the second was given. */
export const book: BookReply = {
  sectionId: 7,
  section: 'Knots 1',
  course: 'Knots',
  teacher: 'Quay, Ada',
  period: { id: 4, name: 'Quarter 2', startsOn: '2025-11-10', endsOn: '2026-01-23' },
  canEdit: true,
  sealedAt: null,
  categories: [
    { id: 2, name: 'Tests', tint: 1, isActive: true, sectionId: null, assignments: 1 },
    { id: 1, name: 'Work', tint: 0, isActive: true, sectionId: null, assignments: 3 },
    { id: 3, name: 'Projects', tint: 2, isActive: true, sectionId: null, assignments: 0 },
  ],
  revision: 'r',
  policy: bodyOfPolicy(policy),
  policyFrom: 'the school',
  item: {
    id: 1,
    name: 'Quarter grade',
    digits: 1,
    rounding: 'halfUp',
    scaleName: 'Two bands',
    bands: [
      { label: 'P', descriptor: '', isOff: false, lowest: '60.00', points: null, passes: true, earnsCredit: true },
      { label: 'F', descriptor: '', isOff: false, lowest: '0.00', points: null, passes: false, earnsCredit: false },
    ],
  },
  assignments: [
    assignment(3, 2, '50'),
    assignment(1, 1, '10'),
    assignment(2, 1, '10'),
    assignment(4, 1, '5', { isExtra: true, givenTo: [12] }),
  ],
  students: [student(11, 'Arden, Bo', '70.0'), student(12, 'Brine, Cy', '95.2')],
  scores: [
    score(1, 11, '8'),
    score(2, 11, null, 'missing'),
    score(3, 11, '40'),
    score(1, 12, '9.5'),
    score(2, 12, '9'),
    score(3, 12, '45'),
    score(4, 12, '2'),
  ],
  sisters: [],
};
