import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { RunReply, RunRowReply } from '#contract/runs';
import { showRoutes, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { RunPage } from './run-page';
import { countsOf, rowOf, runOf } from '../../test/runs.fixture';
import { RunsPage } from './runs-page';

const routes = [
  { path: 'runs', element: <RunsPage /> },
  { path: 'runs/:runId', element: <RunPage /> },
];

const refused = rowOf({
  id: 71,
  kind: 'assignment',
  outcome: 'refuse',
  name: 'Quiz 2',
  columnKey: 'q2',
  personKey: '',
  column: null,
  after: null,
  heldBack: 2,
  reasons: [{ code: 'group-open' }],
});

const show = async (
  run: RunReply = runOf(),
  { rows = [rowOf(), refused], ...answers }: { rows?: readonly RunRowReply[] } & Answers = {},
  address = 'runs/7',
) => {
  const view = showRoutes(routes, {
    address,
    answers: {
      'GET /schools/1/term-line': termLineOf(),
      'GET /runs/7': run,
      'GET /runs/7/rows': { rows, total: rows.length },
      ...answers,
    },
  });
  await screen.findByRole('heading', { level: 1 });
  return view;
};
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;
const button = (name: RegExp | string) => screen.findByRole('button', { name });

describe('a run', () => {
  it.each<[string, Partial<RunReply>, string]>([
    [
      'planned',
      {},
      '5 rows would be written into Quarter 2, 20 are the same. 1 row refused and 0 skipped hold back 2 scores.',
    ],
    [
      'planned, with nothing new',
      { counts: countsOf({ outcomes: { same: 1 } }) },
      'Nothing of Quillpond is new for Quarter 2; 1 row is the same.',
    ],
    ['under way', { state: 'working', done: 0, total: 2 }, 'Planning Quillpond into Quarter 2: class 1 of 2.'],
    [
      'that waits for the platform',
      { state: 'working', stage: 'carry', done: 1, total: 2, problem: 'It answered 503.' },
      'Carrying over Quillpond into Quarter 2: class 2 of 2 – waiting. It answered 503.',
    ],
    [
      'that could not go on',
      { state: 'failed', done: 1, total: 2, problem: 'Its secret is refused.' },
      'The run of Quillpond could not go on after 1 of 2 classes. Its secret is refused. What was kept stays; it goes on where it was.',
    ],
    [
      'carried out',
      { stage: 'carry', counts: countsOf({ outcomes: { create: 5, same: 1 }, results: { written: 4, movedOn: 1 } }) },
      '4 rows of Quillpond written into Quarter 2, 1 was the same. 1 changed here since the plan and was not written.',
    ],
    [
      'undone',
      { stage: 'undo', counts: countsOf({ results: { undone: 3, stays: 2 } }) },
      '3 rows of Quillpond were undone. 2 changed since and were left alone.',
    ],
  ])('says in one sentence how it stands: %s', async (_what, over, says) => {
    await show(runOf(over));
    expect(headline()).toBe(says);
  });

  it('shows each row with what becomes of it or why not, and filters by what is chosen', async () => {
    const { person, search } = await show();
    const table = await screen.findByText('All rows:', { exact: false });
    expect(table.textContent).toBe('All rows: 2');
    expect(screen.getByText('– → 18').tagName).toBe('SPAN');
    await person.click(await button(/^1 row$/));
    expect(search()).toBe('?outcome=refuse');
    expect((await screen.findByText('refused:', { exact: false })).textContent).toContain('Show all');
    await person.click(await button('Show all'));
    expect(search()).toBe('');
  });

  it('says of a mark what the audit will say of it, in its row and beside', async () => {
    const remarks = [{ severity: 'informs' as const, rule: 'Zero posted', says: 'Zero is posted.' }];
    const mark = rowOf({ kind: 'mark', after: { percent: '0', label: 'F', code: null }, remarks });
    const { person } = await show(runOf(), { rows: [mark, refused] });
    const said = await screen.findByText('Zero posted');
    expect(screen.getAllByRole('img', { name: 'for information' })).toHaveLength(1);
    await person.click(said);
    expect((await screen.findByText('Zero is posted.')).tagName).toBe('SPAN');
  });

  it('opens a row with every reason and where it is mended, and skips a person for the whole run', async () => {
    const picked = runOf({ counts: countsOf({ outcomes: { create: 5 }, leftOut: 1 }) });
    const { person, sent } = await show(runOf(), { 'PUT /runs/7/picks': picked });
    await person.click(await screen.findByText('Quiz 2'));
    const drawer = within(await screen.findByRole('complementary'));
    expect(drawer.getByRole('link', { name: 'Join it' }).getAttribute('href')).toMatch(/matches\?view=group$/);
    expect(drawer.queryByRole('button', { name: /^Skip/ })).toBeNull();
    await person.click(screen.getByText('Fennick, Ada'));
    await person.click(await button('Skip Fennick, Ada everywhere'));
    expect(sent.find(({ request }) => request === 'PUT /runs/7/picks')?.body).toEqual({
      kind: 'person',
      keys: ['ada'],
      isPicked: false,
    });
    expect(await screen.findByText('1 of them not picked')).not.toBeNull();
  });

  it('is carried out by key; the same key does nothing once it is', async () => {
    const carried = runOf({ stage: 'carry', counts: countsOf({ results: { written: 5 } }) });
    const { person, sent } = await show(runOf(), { 'POST /runs/7/carry-out': carried });
    await person.keyboard('{Control>}{Enter}{/Control}');
    await expect.poll(headline).toMatch(/^5 rows of Quillpond written/);
    await person.keyboard('{Control>}{Enter}{/Control}');
    expect(sent.filter(({ request }) => request === 'POST /runs/7/carry-out')).toHaveLength(1);
  });

  it('that is under way can be stopped, and one that stopped goes on', async () => {
    const { person, sent } = await show(runOf({ state: 'working', done: 1 }), {
      'POST /runs/7/stop': runOf({ state: 'stopped', done: 1 }),
      'POST /runs/7/resume': runOf(),
    });
    expect(screen.getByRole('progressbar', { name: 'Classes' }).getAttribute('value')).toBe('1');
    await person.click(await button('Stop'));
    await expect.poll(headline).toMatch(/^The run of Quillpond was stopped after 1 of 2 classes\./);
    await person.click(await button('Go on'));
    await expect.poll(headline).toMatch(/^5 rows would be written/);
    expect(sent.map(({ request }) => request)).toContain('POST /runs/7/resume');
  });

  it('is undone only after a look at what that means; a refusal leaves it as it is', async () => {
    const { person } = await show(runOf({ stage: 'carry', counts: countsOf({ results: { written: 1 } }) }), {
      'POST /runs/7/undo': { status: 409, title: 'Not now', detail: 'Another run is under way.', errors: [] },
    });
    await person.click(await button('Undo the run…'));
    expect(screen.getByRole('dialog').textContent).toContain(
      '1 row that this run wrote becomes what stood there before.',
    );
    await person.click(await button('Undo 1 row'));
    expect(await screen.findByText('Another run is under way.')).not.toBeNull();
    await person.click(await button('Cancel'));
    expect(headline()).toMatch(/^1 row of Quillpond written/);
  });

  it('tells each teacher of their own rows, after a look at every message', async () => {
    const letter = (to: string) => ({ to, address: `${to}@x.example`, subject: `For ${to}`, text: 'Scores', lines: 1 });
    const letters = [letter('Tamsin'), letter('Col')];
    const { person, sent } = await show(runOf(), { 'GET /runs/7/letters': letters, 'POST /runs/7/letters': letters });
    await person.click(await button('Message the teachers…'));
    await person.click(await button(/^Col/));
    expect(screen.getByText('For Col').tagName).toBe('P');
    await person.click(await button('Write 2 messages'));
    expect(await screen.findByText('2 messages written.')).not.toBeNull();
    expect(sent.filter(({ request }) => request === 'POST /runs/7/letters')).toHaveLength(1);
  });

  it('shows its classes, where whole ones are left out', async () => {
    const { person, sent } = await show(runOf(), { 'PUT /runs/7/picks': runOf() }, 'runs/7?view=classes');
    await person.click(await screen.findByRole('checkbox', { name: 'Carry out Knots A' }));
    expect(screen.queryByRole('checkbox', { name: 'Carry out Shore B' })).toBeNull();
    expect(sent.at(-1)?.body ?? sent.at(-2)?.body).toEqual({ kind: 'class', keys: ['1'], isPicked: false });
  });

  it('whose rows cannot be read says so beside its sums, and asks again', async () => {
    let answer: object = { status: 500, detail: 'The disk is full.', errors: [] };
    const { person } = await show(runOf(), { 'GET /runs/7/rows': () => answer });
    expect((await screen.findByRole('alert')).textContent).toContain('The disk is full.');
    answer = { rows: [rowOf()], total: 1 };
    await person.click(await button('Try again'));
    expect(await screen.findByText('Fennick, Ada')).not.toBeNull();
  });
});

describe('the runs of a school', () => {
  const platform = { id: 3, name: 'Quillpond', nightly: null, defaultCategoryId: null };
  const runs = { runs: [runOf()], platforms: [platform], categories: [{ id: 1, name: 'Tests' }] };
  const list = (reply: object, answers: Answers = {}) => show(runOf(), { 'GET /runs': reply, ...answers }, 'runs');

  it('begin with a sentence that says what the next one does', async () => {
    const { person, sent } = await list(runs, { 'POST /runs': runOf() });
    await person.selectOptions(screen.getByLabelText('What'), 'totals as posted marks');
    await person.selectOptions(screen.getByLabelText('What is here'), 'replace');
    await person.click(await button('Plan the run'));
    expect(sent.find(({ request }) => request === 'POST /runs')?.body).toEqual({
      platformId: 3,
      periodId: 4,
      mode: 'replace',
      carriesWork: false,
      carriesTotals: true,
    });
    await expect.poll(headline).toMatch(/^5 rows would be written/);
  });

  it('have their habits: one by night, and a category for what has none', async () => {
    const nightly = { at: '02:30', mode: 'keep', carriesWork: true, carriesTotals: false, setBy: 'Morwenna Lark' };
    const { person, sent } = await list(runs, {
      'PUT /runs/of-platform/3/nightly': { ...runs, platforms: [{ ...platform, nightly }] },
      'PUT /runs/of-platform/3/default-category': { ...runs, platforms: [{ ...platform, defaultCategoryId: 1 }] },
    });
    await person.selectOptions(screen.getByLabelText('Time of Quillpond'), 'runs every night at 02:30');
    expect(sent.at(-1)).toMatchObject({
      request: 'PUT /runs/of-platform/3/nightly',
      body: { at: '02:30', mode: 'keep' },
    });
    expect((await screen.findByLabelText('What of Quillpond')).textContent).toContain('assignments and scores');
    await person.selectOptions(screen.getByLabelText('Default category of Quillpond'), 'goes into Tests');
    expect(sent.at(-1)?.body).toEqual({ categoryId: 1 });
  });

  it('of a school without a platform say what comes first', async () => {
    await list({ runs: [], platforms: [], categories: [] });
    expect(screen.queryByRole('button', { name: 'Plan the run' })).toBeNull();
    expect(headline()).toMatch(/platform/);
  });
});
