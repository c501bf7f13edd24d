import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { AuditReply, AuditRuleReply, AuditRunReply, FindingReply } from '#contract/audit';
import { noMark } from '#core/posting';
import { bodyOfMark } from '#contract/posting';
import { showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { FindingsPage } from './findings-page';

const rule = (id: string, summary: string, severity: AuditRuleReply['severity'] = 'blocks'): AuditRuleReply => ({
  id,
  version: 1,
  family: 'missing',
  severity,
  summary,
  why: 'A transcript would lack it.',
});
const finding = (enrollmentId: number, student: string, over: Partial<FindingReply> = {}): FindingReply => ({
  key: `blank-grade ${enrollmentId}`,
  ruleId: 'blank-grade',
  sentence: `${student} has no grade.`,
  enrollmentId,
  studentId: enrollmentId,
  student,
  sectionId: 31,
  section: 'Knots · section 1',
  teacher: 'Tamsin Reed',
  itemId: 1,
  itemName: 'Quarter grade',
  mark: bodyOfMark(noMark),
  computed: null,
  postedBy: null,
  postedAt: null,
  isNew: false,
  ...over,
});
const findings = [
  finding(1, 'Fennick, Ada'),
  finding(2, 'Harrow, Col', { isNew: true, mark: { ...bodyOfMark(noMark), percent: '86.40', label: 'B' } }),
  finding(3, 'Larkin, Bea', { key: 'late 3', ruleId: 'late-grade', sentence: 'Posted after the window.' }),
];
const run = (over: Partial<AuditRunReply> = {}): AuditRunReply => ({
  id: 1,
  startedBy: 'Morwenna Lark',
  startedAt: '2026-01-21T09:00:00Z',
  gradesChecked: 4_120,
  milliseconds: 130,
  findings,
  sinceLastRun: { added: 1, still: 2, gone: 4, at: '2026-01-20T09:00:00Z' },
  changedSince: 0,
  ...over,
});
const auditOf = (of: AuditRunReply | null): AuditReply => ({
  rules: [rule('blank-grade', 'No grade is posted'), rule('late-grade', 'Posted late'), rule('odd', 'Odd')],
  run: of,
});
const show = async (of: AuditRunReply | null, answers: Answers = {}, address = 'findings') => {
  const view = showAt(<FindingsPage />, {
    address,
    answers: { 'GET /audit': auditOf(of), 'GET /schools/1/term-line': termLineOf(), ...answers },
  });
  await screen.findByRole('heading', { level: 1 });
  return view;
};
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;
const evidence = () => within(screen.getByRole('region', { name: 'Evidence' }));

describe('the findings', () => {
  it.each<[string, AuditRunReply, string]>([
    [
      'three, and what is new since the run before',
      run(),
      '3 findings block the seal of Quarter 2; since the run before, 1 is new, 2 still there and 4 gone.',
    ],
    [
      'of a first run',
      run({ sinceLastRun: null, findings: findings.slice(0, 1) }),
      '1 finding blocks the seal of Quarter 2.',
    ],
    ['none', run({ findings: [], sinceLastRun: null }), 'Nothing blocks the seal of Quarter 2.'],
    [
      'of a run that is no longer the last word',
      run({ findings: [], sinceLastRun: null, changedSince: 1 }),
      'Nothing blocks the seal of Quarter 2. 1 grade changed after it.',
    ],
  ])('are told of in one sentence: %s', async (_what, of, says) => {
    await show(of);
    expect(headline()).toBe(says);
  });

  it('say what blocks, what warns and what is for information; a figure shows its own, what blocks stands first', async () => {
    const rules = [
      rule('blank-grade', 'No grade is posted', 'informs'),
      rule('late-grade', 'Posted late'),
      rule('odd', 'Odd', 'warns'),
    ];
    const odd = finding(4, 'Amsel, Jo', { key: 'odd 4', ruleId: 'odd', sentence: 'Odd.' });
    const of = run({ findings: [...findings, odd], sinceLastRun: null });
    const { person, search } = await show(of, { 'GET /audit': { rules, run: of } });
    expect(headline()).toBe('1 finding blocks the seal of Quarter 2; 1 warning and 2 for information.');
    const names = () =>
      screen
        .getAllByRole('row')
        .slice(1)
        .map((row) => /Larkin|Amsel|Fennick|Harrow/.exec(row.textContent)![0]);
    expect(names()).toEqual(['Larkin', 'Amsel', 'Fennick', 'Harrow']);
    await person.click(screen.getByRole('button', { name: '2' }));
    expect([search(), names()]).toEqual(['?severity=informs', ['Fennick', 'Harrow']]);
    await person.click(screen.getByRole('button', { name: '1 warning' }));
    expect(names()).toEqual(['Amsel']);
  });

  it('are gone through by key, each with its evidence, and the last one stays', async () => {
    const { person, search } = await show(run());
    expect(evidence().getByRole('heading').textContent).toBe('Fennick, Ada has no grade.');
    await person.keyboard('j');
    expect(evidence().getByRole('heading').textContent).toBe('Harrow, Col has no grade.');
    expect(evidence().getByText('86.4 %').tagName).toBe('DD');
    await person.keyboard('jjj');
    expect(evidence().getByRole('heading').textContent).toBe('Posted after the window.');
    await person.keyboard('k');
    expect(search()).toBe('?finding=blank-grade+2');
  });

  it('are narrowed by rule and to what is new; the address keeps both, and one button shows all again', async () => {
    const { person, search } = await show(run(), {}, 'findings?rule=late-grade');
    expect(evidence().getByRole('heading').textContent).toBe('Posted after the window.');
    await person.click(screen.getByRole('button', { name: 'Show all findings' }));
    await person.click(screen.getByRole('button', { name: '1' }));
    expect(search()).toBe('?show=new');
    expect(evidence().getByRole('heading').textContent).toBe('Harrow, Col has no grade.');
  });

  it('of a rule that found nothing say so, and beside them stands no evidence', async () => {
    await show(run(), {}, 'findings?rule=odd');
    expect(screen.getByText('Nothing found').tagName).toBe('P');
    expect(screen.queryByRole('region', { name: 'Evidence' })).toBeNull();
  });
});

describe('an audit', () => {
  it('that was never run says what it would do, and runs by key', async () => {
    let now = auditOf(null);
    const answer = () => now;
    const { person } = await show(null, { 'GET /audit': answer, 'POST /audit/runs': () => (now = auditOf(run())) });
    expect(headline()).toBe('Quarter 2 has not been audited yet.');
    expect(screen.getByText(/^An audit checks every grade by 3 rules\./)).not.toBeNull();
    await person.keyboard('a');
    await expect.poll(headline).toMatch(/^3 findings block/);
  });

  it('that fails says why, and what was found before stays', async () => {
    const { person } = await show(run(), {
      'POST /audit/runs': { status: 500, title: 'It failed', detail: 'The disk is full.', errors: [] },
    });
    await person.click(screen.getByRole('button', { name: /^Audit again/ }));
    expect(await screen.findByText('The disk is full.')).not.toBeNull();
    expect(headline()).toMatch(/^3 findings block/);
  });
});
