import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { AuditRunReply, CertificateReply, MendRequest, SendFindingsRequest } from '#contract/audit';
import { dayOrThrow } from '#core/calendar';
import { noMark } from '#core/posting';
import { bodyOfMark } from '#contract/posting';
import { auditOf, evidence, findings, headline, registrar, run, show } from '../../../test/findings.fixture';
import { made, type Answers } from '../../../test/show-at.fixture';

describe('the certificate', () => {
  const certificate: CertificateReply = {
    id: 3,
    courses: [],
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

  it('of anything can be issued only where every rule could run', async () => {
    await show({ ...clean, faults: [{ ruleId: 'odd', problem: 'no' }] }, { 'GET /session': registrar });
    expect(await button()).toHaveProperty('disabled', true);
  });

  it.each<[string, AuditRunReply, string[]]>([
    ['a finding blocks', run(), ['3 findings block.']],
    ['grades changed after the audit', { ...clean, changedSince: 1 }, ['1 grade changed after the audit.']],
  ])('of all courses is held, and the dialog says by what: %s', async (_what, of, says) => {
    const { person } = await show(of, { 'GET /session': registrar });
    await person.click(await button());
    const dialog = within(screen.getByRole('dialog'));
    await person.selectOptions(dialog.getByRole('combobox', { name: 'What it is about' }), 'all courses');
    expect(dialog.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual(says);
    expect(dialog.getByRole('button', { name: 'Issue the certificate' })).toHaveProperty('disabled', true);
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

describe('mending', () => {
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
      findings: [1, 2].map((enrollmentId) => ({ ...key(enrollmentId), revision: 'none' })),
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
      findings: [{ ...key(1), revision: 'none' }],
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

describe('telling a teacher', () => {
  const answer = (body: unknown) => {
    const { findings: wanted, note, fingerprint } = body as SendFindingsRequest;
    return {
      fingerprint: `of ${wanted.length}`,
      messages: [
        {
          teacherId: 9,
          teacher: 'Tamsin Reed',
          address: 'tamsin@example.org',
          findings: wanted.length,
          earlier: 1,
          subject: 'Findings',
          text: `- Knots · section 1: No grade is posted (${wanted.length}) ${note ?? ''}`,
        },
      ],
      skipped: [],
      isSent: fingerprint !== undefined,
    };
  };

  it('shows each message first, of one finding, all of its rule or all of the teacher, and sends what was seen', async () => {
    const { person, sent } = await show(run(), { 'GET /session': registrar, 'POST /audit/messages': answer });
    await screen.findByRole('button', { name: /^Tell the teacher/ });
    await person.keyboard('t');
    const dialog = within(screen.getByRole('dialog'));
    expect((await dialog.findByText('told of 1 before')).tagName).toBe('SPAN');
    await person.selectOptions(dialog.getByRole('combobox', { name: 'Which findings' }), 'all 3 of this teacher');
    await dialog.findByText(/No grade is posted \(3\)/);
    await person.type(dialog.getByRole('textbox'), 'By Friday.');
    await person.tab();
    await dialog.findByText(/By Friday\./);
    await person.click(dialog.getByRole('button', { name: 'Send 1 message' }));
    await expect.poll(() => screen.queryByRole('dialog')).toBeNull();
    const bodies = sent.filter(({ request }) => request === 'POST /audit/messages').map(({ body }) => body);
    expect(bodies.at(-1)).toMatchObject({ note: 'By Friday.', fingerprint: 'of 3' });
    expect((bodies.at(-1) as SendFindingsRequest).findings).toHaveLength(3);
  });

  it('stands beside the evidence from then on, with whether the grade was saved since', async () => {
    const notice = { to: 'Tamsin Reed', at: '2026-01-21T11:00:00Z', isAnswered: true };
    await show(run({ findings: findings.map((each) => ({ ...each, notice })) }));
    expect(evidence().getByText(/Tamsin Reed was told on/).textContent).toMatch(/; the grade was saved since\.$/);
  });
});
