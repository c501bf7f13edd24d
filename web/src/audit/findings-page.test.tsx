import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type {
  AuditReply,
  AuditRuleReply,
  AuditRunReply,
  CertificateReply,
  FindingReply,
  MendRequest,
} from '#contract/audit';
import { dayOrThrow } from '#core/calendar';
import { usualView } from '#core/people';
import { noMark } from '#core/posting';
import { bodyOfMark } from '#contract/posting';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { FindingsPage } from './findings-page';

const rule = (id: string, summary: string, severity: AuditRuleReply['severity'] = 'blocks'): AuditRuleReply => ({
  id,
  version: 1,
  family: 'missing',
  scope: 'grade',
  severity,
  isOff: false,
  summary,
  why: 'A transcript would lack it.',
  fix: id === 'blank-grade' ? 'Post what is computed' : null,
});
const finding = (enrollmentId: number, student: string, over: Partial<FindingReply> = {}): FindingReply => ({
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
  waiver: null,
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
  faults: [],
  findings,
  sinceLastRun: { added: 1, still: 2, gone: 4, at: '2026-01-20T09:00:00Z' },
  changedSince: 0,
  ...over,
});
const auditOf = (of: AuditRunReply | null): AuditReply => ({
  rules: [rule('blank-grade', 'No grade is posted'), rule('late-grade', 'Posted late'), rule('odd', 'Odd')],
  run: of,
  certificate: null,
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

describe('findings about more than one grade', () => {
  const unweighed = rule('weights', 'Weights do not come to 100', 'warns');
  const wide = {
    ...auditOf(null),
    rules: [rule('blank-grade', 'No grade is posted'), { ...unweighed, scope: 'section' as const }],
  };
  const ofSection = finding(4, '', {
    key: 'weights 31',
    ruleId: 'weights',
    sentence: 'The weights of Knots 2 come to 95, not to 100.',
    enrollmentId: null,
    sectionId: 32,
    openSectionId: 32,
    itemId: null,
    itemName: null,
    subject: 'Knots 2',
    section: 'Knots 2',
    student: null,
    studentId: null,
    teacher: 'Halvor Finch',
    mark: null,
  });
  const answers = {
    'GET /audit': { ...wide, run: run({ findings: [...findings.slice(0, 2), ofSection], sinceLastRun: null }) },
  };

  it('name the section, show no grade, and open its grade book', async () => {
    const { person, address } = await show(null, answers, 'findings?rule=weights');
    expect(evidence().getByText('Halvor Finch').tagName).toBe('DD');
    expect(evidence().queryByText('Posted percentage')).toBeNull();
    expect(evidence().getByRole('button', { name: /^Open the grade book/ })).not.toBeNull();
    await person.keyboard('{Enter}');
    expect(address()).toBe('/school/1/period/4/grade-books/32');
  });

  it('are gathered by course, teacher and student too, the most first; the address keeps it', async () => {
    const { person, search } = await show(null, answers);
    const groups = () => screen.getAllByRole('button', { pressed: false }).map(({ textContent }) => textContent);
    await person.click(screen.getByRole('button', { name: 'Teacher' }));
    expect(groups().slice(-2)).toEqual(['Tamsin Reed2', 'Halvor Finch1']);
    await person.click(screen.getByRole('button', { name: /Halvor Finch/ }));
    expect(search()).toBe('?by=teacher&teacher=Halvor+Finch');
    expect(evidence().getByRole('heading').textContent).toBe('The weights of Knots 2 come to 95, not to 100.');
    await person.click(screen.getByRole('button', { name: 'Student' }));
    // What is about no student is in no student's group.
    expect(groups().slice(-2)).toEqual(['Fennick, Ada1', 'Harrow, Col1']);
    expect(search()).toBe('?by=student');
  });

  it('a rule that could not run is told of, and never taken for clean', async () => {
    await show(run({ findings: [], sinceLastRun: null, faults: [{ ruleId: 'odd', problem: 'no such thing' }] }));
    expect(headline()).toBe(
      'Nothing blocks the seal of Quarter 2. 1 rule could not run: what it would find is not known.',
    );
  });
});

describe('the certificate', () => {
  const registrar = {
    person: { personId: 1, name: 'Morwenna Lark', grants: [{ role: 'registrar', schoolId: null }] },
    view: usualView,
    timeZone: 'UTC',
    csrfToken: '',
  };
  const certificate: CertificateReply = {
    id: 3,
    by: 'Morwenna Lark',
    at: '2026-01-21T11:00:00Z',
    note: '',
    grades: 4_120,
    waivers: 2,
    gradesHash: 'ab',
    broken: [],
  };
  const clean = run({ findings: [], sinceLastRun: null });
  const button = () => screen.findByRole('button', { name: /^Certify/ });

  it.each<[string, AuditRunReply, boolean]>([
    ['nothing blocks', clean, false],
    ['a finding blocks', run(), true],
    ['grades changed after the audit', { ...clean, changedSince: 1 }, true],
    ['a rule could not run', { ...clean, faults: [{ ruleId: 'odd', problem: 'no' }] }, true],
  ])('can be issued only when nothing stands against it: %s', async (_what, of, isHeld) => {
    await show(of, { 'GET /session': registrar });
    expect(await button()).toHaveProperty('disabled', isHeld);
  });

  it('is issued by key with a note, after saying what it will say', async () => {
    const issued = { ...auditOf(clean), certificate };
    const { person, sent } = await show(clean, {
      'GET /session': registrar,
      'POST /audit/certificates': () => issued,
    });
    await button();
    await person.keyboard('c');
    const dialog = within(screen.getByRole('dialog'));
    expect(dialog.getByText('4,120 grades checked by 3 rules').tagName).toBe('LI');
    await person.type(dialog.getByRole('textbox'), 'For the board. ');
    await person.click(dialog.getByRole('button', { name: 'Issue the certificate' }));
    expect(sent.find(({ request }) => request === 'POST /audit/certificates')?.body).toEqual({
      periodId: 4,
      note: 'For the board.',
    });
    expect((await screen.findByText('Certified')).parentElement!.textContent).toMatch(
      /by Morwenna Lark: 4,120 grades, 2 waivers\.$/,
    );
    expect(screen.getByRole('link', { name: 'Audited grades' }).getAttribute('href')).toBe(
      '/api/audit/grades-file?period=4',
    );
  });

  it('that broke says what it no longer rests on', async () => {
    const broken = { ...certificate, broken: ['grades', 'waivers'] as const };
    await show(clean, { 'GET /audit': { ...auditOf(clean), certificate: broken } });
    expect(screen.getByText(/no longer holds/).parentElement!.textContent).toMatch(
      /grades changed and a waiver ended\.$/,
    );
    expect(screen.queryByRole('link', { name: 'Audited grades' })).toBeNull();
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

describe('mending', () => {
  const registrar = {
    person: { personId: 1, name: 'Morwenna Lark', grants: [{ role: 'registrar', schoolId: null }] },
    view: usualView,
    timeZone: 'UTC',
    csrfToken: '',
  };
  const change = (student: string) => ({
    student,
    section: 'Knots · section 1',
    before: null,
    after: { ...bodyOfMark(noMark), percent: '86.4', label: 'B' },
  });
  const answer = (body: unknown): object => {
    const { findings: wanted, fingerprint } = body as MendRequest;
    const reply = {
      fingerprint: `of ${wanted.length}`,
      signedOff: 1,
      changes: [change('Fennick, Ada')],
      skipped:
        wanted.length > 1 ? [{ student: 'Harrow, Col', section: 'Knots · section 1', why: 'It is right by now.' }] : [],
    };
    return fingerprint ? made(9, { ...reply, isMended: true }) : { ...reply, isMended: false };
  };

  it('is looked at first, of one and of all alike with what is skipped and why, and carried out as it was seen', async () => {
    const { person, sent } = await show(run(), { 'GET /session': registrar, 'POST /audit/mend': answer });
    await screen.findByRole('button', { name: /^Post what is computed…/ });
    await person.keyboard('m');
    const dialog = within(screen.getByRole('dialog'));
    expect((await dialog.findByText('86.4 % B')).tagName).toBe('TD');
    await person.click(dialog.getByRole('checkbox', { name: 'the 1 other finding of “No grade is posted” too' }));
    expect(await dialog.findByText('It is right by now.')).not.toBeNull();
    await person.click(
      dialog.getByRole('checkbox', { name: 'also on 1 signed-off sheet: the sign-off is taken back' }),
    );
    await person.click(await dialog.findByRole('button', { name: 'Post what is computed for 1 grade' }));
    await expect.poll(() => screen.queryByRole('dialog')).toBeNull();
    expect(sent.filter(({ request }) => request === 'POST /audit/mend').map(({ body }) => body)).toEqual([
      { periodId: 4, findings: [key(1)], takesBackSignOffs: false },
      { periodId: 4, findings: [key(1), key(2)], takesBackSignOffs: false },
      { periodId: 4, findings: [key(1), key(2)], takesBackSignOffs: true },
      { periodId: 4, findings: [key(1), key(2)], takesBackSignOffs: true, fingerprint: 'of 2' },
    ]);
  });

  it('is offered only where the rule knows what is right', async () => {
    const { person } = await show(run(), { 'GET /session': registrar }, 'findings?rule=late-grade');
    await screen.findByRole('button', { name: /^Waive/ });
    await person.keyboard('m');
    expect(screen.queryByRole('dialog')).toBeNull();
  });
});

const key = (enrollmentId: number) => ({
  ruleId: 'blank-grade',
  enrollmentId,
  sectionId: null,
  courseId: null,
  itemId: 1,
});

describe('a waiver', () => {
  const registrar = {
    person: { personId: 1, name: 'Morwenna Lark', grants: [{ role: 'registrar', schoolId: null }] },
    view: usualView,
    timeZone: 'UTC',
    csrfToken: '',
  };
  const waiver = {
    by: 'Morwenna Lark',
    at: '2026-01-21T10:42:00Z',
    reason: 'Agreed.',
    until: null,
    state: 'holds',
  } as const;
  const waived = (of: readonly number[], state: 'holds' | 'over' | 'changed' = 'holds') =>
    auditOf(
      run({
        sinceLastRun: null,
        findings: findings.map((each) =>
          of.includes(each.enrollmentId!) ? { ...each, waiver: { ...waiver, state } } : each,
        ),
      }),
    );
  const open = (answers: Answers = {}) => show(run(), { 'GET /session': registrar, ...answers });
  const names = () =>
    screen
      .getAllByRole('row')
      .slice(1)
      .map((row) => /Larkin|Fennick|Harrow/.exec(row.textContent)![0]);

  it('is given by key with a reason, of one or of all alike, and what it lets stand counts no more', async () => {
    const { person, sent } = await open({ 'PUT /audit/waivers': () => made(9, waived([1, 2])) });
    await screen.findByRole('button', { name: /^Waive/ });
    await person.keyboard('v');
    const dialog = within(screen.getByRole('dialog'));
    expect(dialog.getByText(/Fennick, Ada has no grade\./)).not.toBeNull();
    expect(dialog.getByRole('button', { name: /^Waive/ })).toHaveProperty('disabled', true);
    await person.type(dialog.getByRole('textbox', { name: 'Reason' }), 'ok ');
    expect(dialog.getByRole('button', { name: /^Waive/ })).toHaveProperty('disabled', true);
    await person.type(dialog.getByRole('textbox', { name: 'Reason' }), 'with the head');
    await person.click(dialog.getByRole('checkbox', { name: 'the 1 other finding of “No grade is posted” too' }));
    await person.click(dialog.getByRole('button', { name: 'Waive 2' }));
    await expect.poll(headline).toBe('1 finding blocks the seal of Quarter 2; 2 waived.');
    expect(sent.find(({ request }) => request === 'PUT /audit/waivers')?.body).toEqual({
      periodId: 4,
      findings: [1, 2].map((enrollmentId) => key(enrollmentId)),
      reason: 'ok with the head',
      until: null,
    });
    expect(names()).toEqual(['Larkin', 'Fennick', 'Harrow']);
  });

  it('that is refused leaves what was typed where it is, with the reason', async () => {
    const { person } = await open({
      'PUT /audit/waivers': {
        status: 422,
        code: 'fields-wrong',
        title: 'Something needs correcting',
        detail: '',
        errors: [{ field: 'reason', detail: 'a reason that whoever reads it later understands' }],
      },
    });
    await screen.findByRole('button', { name: /^Waive/ });
    await person.keyboard('v');
    await person.type(screen.getByRole('textbox', { name: 'Reason' }), '...');
    await person.click(within(screen.getByRole('dialog')).getByRole('button', { name: /^Waive/ }));
    expect(
      await within(screen.getByRole('dialog')).findByText('a reason that whoever reads it later understands'),
    ).not.toBeNull();
    expect(screen.getByRole('textbox', { name: 'Reason' })).toHaveProperty('value', '...');
  });

  it.each([
    ['holds', 'Waived', '2 findings block'],
    ['over', /^The waiver was over/, '3 findings block'],
    ['changed', 'The waiver ended: the finding says something else now', '3 findings block'],
  ] as const)('that %s says so beside the evidence, and can be ended', async (state, says, counts) => {
    const over = waived([1], state);
    const until = {
      ...over.run!.findings[0]!,
      waiver: { ...waiver, state, until: state === 'over' ? dayOrThrow('2026-01-20') : null },
    };
    const now = { ...over, run: { ...over.run!, findings: [until, ...over.run!.findings.slice(1)] } };
    const { person, sent } = await open({
      'GET /audit': now,
      'POST /audit/waivers/end': () => made(9, auditOf(run())),
    });
    expect(headline()).toContain(counts);
    await person.click(screen.getByText('Fennick, Ada'));
    expect(evidence().getByText(says)).not.toBeNull();
    expect(evidence().getByText('“Agreed.”')).not.toBeNull();
    await person.click(await screen.findByRole('button', { name: 'End the waiver' }));
    await expect.poll(headline).toMatch(/^3 findings block/);
    expect(sent.find(({ request }) => request === 'POST /audit/waivers/end')?.body).toEqual({
      periodId: 4,
      findings: [{ ruleId: 'blank-grade', enrollmentId: 1, sectionId: null, courseId: null, itemId: 1 }],
    });
  });

  it('is not offered to who may only read', async () => {
    const viewer = { ...registrar, person: { ...registrar.person, grants: [{ role: 'viewer', schoolId: 1 }] } };
    const { person } = await open({ 'GET /session': viewer });
    await person.keyboard('v');
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(screen.queryByRole('button', { name: /^Waive/ })).toBeNull();
  });
});
