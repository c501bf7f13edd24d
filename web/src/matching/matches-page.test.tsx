import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { MatchDecisionBody, MatchesReply, NameMatchReply } from '#contract/matching';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { MatchesPage } from './matches-page';

const group = (id: number, name: string, over: Partial<NameMatchReply> = {}): NameMatchReply => ({
  key: name.toLowerCase(),
  kind: 'group',
  name,
  places: [{ id, classId: 1, weight: 40, decision: 'open', target: null }],
  state: 'unmatched',
  target: null,
  best: null,
  between: [],
  ...over,
});
const sure = (key: string) => ({ key, confidence: 95, reasons: [{ kind: 'same' as const }] });
const reply = {
  platform: { id: 3, name: 'Quillpond', readAt: '2026-01-21T09:00:00Z' },
  sections: [
    { id: 31, name: 'Knots · section 1', students: 20 },
    { id: 32, name: 'Shore · section 1', students: 18 },
  ],
  targets: {
    group: [
      { key: '1', name: 'Tests', weight: 40 },
      { key: '2', name: 'Work', weight: 60 },
    ],
    total: [],
    letter: [],
  },
  classes: [
    {
      id: 1,
      title: 'Knots A',
      code: null,
      term: 'Q2',
      students: 20,
      state: 'proposed',
      sectionId: null,
      best: { sectionId: 31, confidence: 90, reasons: [{ kind: 'students', common: 19, of: 20 }] },
      between: [],
      claimedBy: [],
    },
    {
      id: 2,
      title: 'Staff room',
      code: null,
      term: 'Q2',
      students: 0,
      state: 'unmatched',
      sectionId: null,
      best: null,
      between: [],
      claimedBy: [],
    },
  ],
  names: [group(11, 'Quizzes'), group(12, 'Homework'), group(13, 'Tests', { state: 'proposed', best: sure('1') })],
  people: [
    {
      id: 5,
      name: 'Ada Fennick',
      identifier: null,
      email: null,
      birthDate: '2010-03-02',
      state: 'proposed',
      match: { state: 'proposed', by: 'nameAndBirthDate' },
      target: null,
      candidates: [{ id: 9, name: 'Fennick, Ada', number: '100009', email: 'a@x.example', birthDate: '2010-03-02' }],
    },
  ],
  peopleFound: 540,
} as unknown as MatchesReply;

const show = async (answers: Answers = {}, address = 'matches') => {
  const view = showAt(<MatchesPage />, {
    address,
    answers: {
      'GET /platforms': [reply.platform],
      'GET /platforms/3/matches': reply,
      'GET /schools/1/term-line': termLineOf(),
      'POST /platforms/3/decisions': made(7, { changed: 1 }),
      ...answers,
    },
  });
  await screen.findByRole('heading', { level: 1 });
  return view;
};
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;
const decided = (sent: readonly { request: string; body: unknown }[]) =>
  sent
    .filter(({ request }) => request === 'POST /platforms/3/decisions')
    .flatMap(({ body }) => (body as { decisions: MatchDecisionBody[] }).decisions);

describe('the matches of a platform', () => {
  it('say what waits, each figure leading to where it is decided', async () => {
    const { person, search } = await show();
    expect(headline()).toBe(
      '0 of 2 classes on Quillpond are joined to our sections. Still to decide: 2 classes, 3 group names and 1 student.',
    );
    await person.click(screen.getByRole('button', { name: '1 student' }));
    expect(search()).toBe('?view=person');
    expect(screen.getByText(/540 students were found by number or address/)).not.toBeNull();
  });

  it('without a platform lead to where one is connected', async () => {
    await show({ 'GET /platforms': [] });
    expect(screen.getByRole('link', { name: 'Connect a platform' }).getAttribute('href')).toMatch(/\/platforms$/);
  });

  it('that cannot be read say why, and ask again', async () => {
    let answer: object = { status: 500, detail: 'The disk is full.', errors: [] };
    const { person } = await show({ 'GET /platforms/3/matches': () => answer });
    expect(screen.getByRole('alert').textContent).toContain('The disk is full.');
    answer = reply;
    await person.click(screen.getByRole('button', { name: 'Try again' }));
    await expect.poll(headline).toMatch(/^0 of 2 classes/);
  });
});

describe('a class', () => {
  it('is joined to the section that is proposed, or ignored, and says why', async () => {
    const { person, sent } = await show();
    expect(screen.getByText('19 of 20 students in both').tagName).toBe('SPAN');
    expect(screen.getByText('no section has its students or its title').tagName).toBe('SPAN');
    await person.click(screen.getByRole('button', { name: 'Join Knots A' }));
    expect(await screen.findByText('Knots A is Knots · section 1.')).not.toBeNull();
    await person.click(screen.getByRole('button', { name: 'Ignore Staff room' }));
    await expect
      .poll(() => decided(sent))
      .toEqual([
        { kind: 'class', ids: [1], decision: 'joined', target: '31' },
        { kind: 'class', ids: [2], decision: 'ignored', target: null },
      ]);
  });

  it('may be another section than the one proposed', async () => {
    const { person, sent } = await show();
    await person.selectOptions(screen.getByLabelText('Section of Knots A'), 'Shore · section 1');
    await expect.poll(() => decided(sent)[0]?.target).toBe('32');
  });

  it('that two claim is refused in words, and nothing changes', async () => {
    const detail = 'Knots · section 1 would be joined to "Knots A, Knots B".';
    const { person } = await show({
      'POST /platforms/3/decisions': { status: 409, title: 'Twice', detail, errors: [] },
    });
    await person.click(screen.getByRole('button', { name: 'Join Knots A' }));
    expect(await screen.findByText(detail)).not.toBeNull();
    expect(screen.getByRole('button', { name: 'Join Knots A' })).toHaveProperty('disabled', false);
  });
});

describe('a name of groups', () => {
  it('is decided by the figure of the category, as fast as the keys are pressed: each is about the next name', async () => {
    const { person, sent } = await show(
      { 'POST /platforms/3/decisions': () => new Promise(() => undefined) },
      'matches?view=group',
    );
    await person.keyboard('12x');
    await expect
      .poll(() => decided(sent).map(({ ids, decision, target }) => [ids[0], decision, target]))
      .toEqual([
        [11, 'joined', '1'],
        [12, 'joined', '2'],
        [13, 'ignored', null],
      ]);
  });

  it('is taken with all that are as sure as a line that is chosen', async () => {
    const { person, sent } = await show({}, 'matches?view=group');
    await person.click(screen.getByRole('button', { name: 'Accept 1 proposal' }));
    expect(await screen.findByText('1 proposal accepted.')).not.toBeNull();
    expect(decided(sent)).toEqual([{ kind: 'group', ids: [13], decision: 'joined', target: '1' }]);
  });

  it('can be looked at in one class alone', async () => {
    const { person, search } = await show({}, 'matches?view=group&class=1');
    expect(screen.getByText(/a decision here applies to this class only/).textContent).toMatch(/^Only Knots A/);
    await person.click(screen.getByRole('button', { name: 'Show all classes' }));
    expect(search()).toBe('?view=group');
  });
});

describe('a student', () => {
  it('whom neither number nor address settles is joined by hand', async () => {
    const { person, sent } = await show({}, 'matches?view=person');
    const row = within(screen.getByText('Ada Fennick').closest('[role=row], tr')!);
    expect(row.getByText('same name and day of birth; no number, no address')).not.toBeNull();
    await person.click(screen.getByRole('button', { name: 'Join Ada Fennick' }));
    await expect.poll(() => decided(sent)[0]).toMatchObject({ kind: 'person', ids: [5], target: '9' });
  });
});
