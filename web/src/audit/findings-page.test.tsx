import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { closeDrawer, useDrawer } from '../shell/drawer-store';
import type { AuditProgressReply, AuditRunReply } from '#contract/audit';
import {
  auditOf,
  evidence,
  finding,
  findings,
  headline,
  registrar,
  rule,
  run,
  show,
} from '../../test/findings.fixture';

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

  it('about a sheet open the section beside its sisters by key', async () => {
    const ofSheet = { ...ofSection, key: 'weights 32 1', itemId: 1, itemName: 'Quarter grade' };
    const { person } = await show(null, {
      'GET /audit': { ...wide, run: run({ findings: [ofSheet], sinceLastRun: null }) },
    });
    await person.keyboard('d');
    expect(useDrawer.getState().shown?.title).toBe('Knots 2 · Quarter grade');
    closeDrawer();
  });

  it('a rule that could not run is told of, and never taken for clean', async () => {
    await show(run({ findings: [], sinceLastRun: null, faults: [{ ruleId: 'odd', problem: 'no such thing' }] }));
    expect(headline()).toBe(
      'Nothing blocks the seal of Quarter 2. 1 rule could not run: what it would find is not known.',
    );
  });
});

describe('an audit', () => {
  let isBegun = false;

  it('that was never run says what it would do, and runs by key', async () => {
    const begun = { startedBy: 'Morwenna Lark', startedAt: '2026-01-21T09:00:00Z', problem: null, sectionCount: 197 };
    const tasks: AuditProgressReply[] = [
      { task: { ...begun, state: 'running', sectionsDone: 12 }, runId: null },
      { task: { ...begun, state: 'running', sectionsDone: 144 }, runId: null },
      { task: null, runId: 1 },
    ];
    let isDone = false;
    const { person } = await show(null, {
      'GET /audit': () => auditOf(isDone ? run() : null),
      'POST /audit/runs': { task: { ...begun, state: 'running', sectionsDone: 0, sectionCount: 0 }, runId: null },
      'GET /audit/progress': () => {
        const next = isBegun ? tasks.shift()! : { task: null, runId: null };
        isDone ||= isBegun && next.task === null;
        return next;
      },
    });
    expect(headline()).toBe('Quarter 2 has not been audited yet.');
    expect(screen.getByText(/^An audit checks every grade by 3 rules\./)).not.toBeNull();
    await person.keyboard('a');
    isBegun = true;
    expect(await screen.findByText('Reading the set-up')).not.toBeNull();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Auditing/ }).disabled).toBe(true);
    await expect
      .poll(() => screen.queryByRole('status')?.textContent)
      .toBe('All rules have looked at 12 of 197 sections');
    await expect.poll(headline).toMatch(/^3 findings block/);
    expect(screen.queryByRole('region', { name: 'Auditing' })).toBeNull();
  });

  it('that is under way is everybody’s, and is stopped by who may audit', async () => {
    const running = {
      state: 'running',
      startedBy: 'Tamsin Reed',
      startedAt: '2026-01-21T09:00:00Z',
      sectionsDone: 9,
      sectionCount: 197,
      problem: null,
    };
    const { person } = await show(run(), {
      'GET /session': registrar,
      'GET /audit/progress': { task: running, runId: 1 },
      'DELETE /audit/runs': { task: { ...running, state: 'stopped' }, runId: 1 },
    });
    expect((await screen.findByRole('region', { name: 'Auditing' })).textContent).toContain('begun by Tamsin Reed');
    await person.click(await screen.findByRole('button', { name: 'Stop' }));
    expect(
      await screen.findByText(/^The last audit \(Tamsin Reed, .*\) was stopped; below is what was found before\.$/),
    ).not.toBeNull();
    expect(headline()).toMatch(/^3 findings block/);
  });

  it('that came to nothing says why', async () => {
    const problem = 'It was broken off by a fault of ours.';
    const failed = {
      state: 'failed',
      startedBy: 'Tamsin Reed',
      startedAt: '2026-01-21T09:00:00Z',
      sectionsDone: 9,
      sectionCount: 197,
      problem,
    };
    await show(run(), { 'GET /audit/progress': { task: failed, runId: 1 } });
    expect((await screen.findByText(/^It was broken off by a fault of ours\. \(Tamsin Reed/)).textContent).toContain(
      'What was found before stays',
    );
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

describe('what was changed after the audit', () => {
  const again = { isLooked: true, isBeyond: false, added: [] };
  const goneNow = [finding(1, 'Fennick, Ada', { isGone: true }), ...findings.slice(1)];
  const added = [
    finding(9, 'Moor, Ren', { key: 'late 9', ruleId: 'late-grade', sentence: 'Posted after the window.' }),
  ];

  it.each([
    ['nothing else', run({ findings: goneNow, changedSince: 2, again }), 'By now, 1 finding is gone.'],
    [
      'something new beside',
      run({ findings: goneNow, changedSince: 2, again: { ...again, added } }),
      'By now, 1 finding is gone and 1 is new.',
    ],
    ['something new alone', run({ changedSince: 1, again: { ...again, added } }), 'By now 1 finding is new.'],
    [
      'too much to look at',
      run({ changedSince: 900, again: { ...again, isLooked: false } }),
      'only another audit tells what is so now.',
    ],
    ['what only another audit sees', run({ again: { ...again, isBeyond: true } }), 'another audit looks at them.'],
  ])('is looked at again: %s', async (_what, of, says) => {
    await show(of);
    expect(headline()).toContain(says);
  });

  it('is not counted, stands last, and cannot be settled once it is gone', async () => {
    const { person } = await show(run({ findings: goneNow, changedSince: 1, again }));
    expect(headline()).toMatch(/^2 findings block the seal/);
    const rows = screen.getAllByRole('row').map(({ textContent }) => textContent);
    expect(rows.at(-1)).toContain('Fennick, Ada');
    expect(rows.at(-1)).toContain('gone');
    await person.click(screen.getByText('Fennick, Ada'));
    expect(screen.getByText(/^It is gone:/).tagName).toBe('P');
    expect(screen.queryByRole('button', { name: /Waive|Tell the teacher|Post what is computed/ })).toBeNull();
  });

  it.each([
    ['where there is nothing to tell', findings.map((each) => ({ ...each, isNew: false, waiver: null })), false],
    ['of what is gone', goneNow, true],
    ['of what is new', findings.map((each) => ({ ...each, isNew: true })), true],
  ])('has a column of its own only if there is something to tell: %s', async (_what, of, has) => {
    await show(run({ findings: of, again }));
    const heads = screen.getAllByRole('columnheader').map(({ textContent }) => textContent);
    expect(heads.includes('New')).toBe(has);
  });

  it('tells what is new when asked', async () => {
    const { person } = await show(run({ changedSince: 1, again: { ...again, added } }));
    await person.click(screen.getByRole('button', { name: '1 finding' }));
    expect(useDrawer.getState().shown?.title).toBe('Found since the audit');
  });
});
