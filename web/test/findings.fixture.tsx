import { screen, within } from '@testing-library/react';
import type { AuditReply, AuditRuleReply, AuditRunReply, FindingReply } from '#contract/audit';
import { usualView } from '#core/people';
import { noMark } from '#core/posting';
import { bodyOfMark } from '#contract/posting';
import { FindingsPage } from '../src/audit/findings-page';
import { showAt, type Answers } from './show-at.fixture';
import { termLineOf } from './term-line.fixture';

export const rule = (id: string, summary: string, severity: AuditRuleReply['severity'] = 'blocks'): AuditRuleReply => ({
  id,
  version: 1,
  family: 'missing',
  scope: 'grade',
  settledIn: null,
  severity,
  isOff: false,
  summary,
  why: 'A transcript would lack it.',
  fix: id === 'blank-grade' ? 'Post what is computed' : null,
});
export const finding = (enrollmentId: number, student: string, over: Partial<FindingReply> = {}): FindingReply => ({
  key: `blank-grade ${enrollmentId}`,
  ruleId: 'blank-grade',
  sentence: `${student} has no grade.`,
  enrollmentId,
  sectionId: null,
  courseId: null,
  subject: student,
  studentId: enrollmentId,
  student,
  openSectionId: 31,
  course: 'Knots',
  section: 'Knots · section 1',
  teacher: 'Tamsin Reed',
  itemId: 1,
  itemName: 'Quarter grade',
  mark: bodyOfMark(noMark),
  computed: null,
  postedBy: null,
  postedAt: null,
  isNew: false,
  isGone: false,
  waiver: null,
  note: null,
  noteRevision: 'none',
  waiverRevision: 'none',
  notice: null,
  ...over,
});
export const findings = [
  finding(1, 'Fennick, Ada'),
  finding(2, 'Harrow, Col', { isNew: true, mark: { ...bodyOfMark(noMark), percent: '86.40', label: 'B' } }),
  finding(3, 'Larkin, Bea', { key: 'late 3', ruleId: 'late-grade', sentence: 'Posted after the window.' }),
];
export const run = (over: Partial<AuditRunReply> = {}): AuditRunReply => ({
  id: 1,
  startedBy: 'Morwenna Lark',
  startedAt: '2026-01-21T09:00:00Z',
  gradesChecked: 4_120,
  milliseconds: 130,
  faults: [],
  findings,
  sinceLastRun: { added: 1, still: 2, gone: 4, at: '2026-01-20T09:00:00Z' },
  changedSince: 0,
  again: { isLooked: true, isBeyond: false, added: [] },
  ...over,
});
export const auditOf = (of: AuditRunReply | null): AuditReply => ({
  rules: [rule('blank-grade', 'No grade is posted'), rule('late-grade', 'Posted late'), rule('odd', 'Odd')],
  run: of,
  certificate: null,
});
export const show = async (of: AuditRunReply | null, answers: Answers = {}, address = 'findings') => {
  const view = showAt(<FindingsPage />, {
    address,
    answers: {
      'GET /audit': auditOf(of),
      'GET /audit/progress': { task: null, runId: 1 },
      'GET /audit/certificates': { certificates: [], courses: [] },
      'GET /schools/1/term-line': termLineOf(),
      ...answers,
    },
  });
  await screen.findByRole('heading', { level: 1 });
  return view;
};
export const headline = () => screen.getByRole('heading', { level: 1 }).textContent;
export const evidence = () => within(screen.getByRole('region', { name: 'Evidence' }));
/** Who may mend, waive and certify. */
export const registrar = {
  person: { personId: 1, name: 'Morwenna Lark', grants: [{ role: 'registrar', schoolId: null }] },
  view: usualView,
  timeZone: 'UTC',
  csrfToken: '',
};
