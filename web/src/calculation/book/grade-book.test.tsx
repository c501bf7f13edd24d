import { act, fireEvent, screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { BookReply, SaveScoresRequest } from '#contract/calculation';
import { made, showRoutes, type Answers } from '../../../test/show-at.fixture';
import { termLineOf } from '../../../test/term-line.fixture';
import { book } from '../../../test/book.fixture';
import { GradeBookPage } from './grade-book-page';
import { scoreDrafts } from './score-drafts';

const at = '/grade-books/7/4';
const draftId = '7/4';
const routes = [
  { path: 'grade-books/:sectionId', element: <GradeBookPage /> },
  { path: 'grade-sheets/:sectionId/:itemId', element: <h1>The sheet</h1> },
];
const show = async (over: Partial<BookReply> = {}, answers: Answers = {}) => {
  const view = showRoutes(routes, {
    address: 'grade-books/7',
    answers: {
      'GET /schools/1/term-line': termLineOf(),
      'GET /runs/last': { last: null },
      'GET /session': { person: { personId: 7, grants: [{ role: 'teacher', schoolId: 1 }] } },
      [`GET ${at}`]: { ...book, ...over },
      ...answers,
    },
  });
  await screen.findByRole('heading', { level: 1 });
  return view;
};
const headline = () => screen.getByRole('heading', { level: 1, hidden: true }).textContent;
const button = (name: RegExp | string) => screen.getByRole<HTMLButtonElement>('button', { name });
const grid = () => screen.getByRole('grid');
const row = (student: string) => screen.getByRole('row', { name: new RegExp(`^${student}`) });
/** The cell of a student under the head of an assignment. */
const cell = (student: string, assignment: string) => {
  const head = within(grid())
    .getAllByRole('columnheader')
    .find(({ textContent }) => textContent?.startsWith(assignment))!;
  return within(row(student))
    .getAllByRole('gridcell')
    .find((each) => each.getAttribute('aria-colindex') === head.getAttribute('aria-colindex'))!;
};
const saved = (sent: readonly { request: string; body: unknown }[]) =>
  sent.filter(({ request }) => request === `PUT ${at}/scores`).map(({ body }) => body as SaveScoresRequest);
const withScore = (points: string, version: number): BookReply => ({
  ...book,
  scores: book.scores.map((score) =>
    score.assignmentId === 1 && score.enrollmentId === 11 ? { ...score, points, version } : score,
  ),
});

beforeEach(() => act(() => scoreDrafts.discard(draftId)));

describe('a grade book', () => {
  it('says what it averages, and how many posted grades are not what it computes', async () => {
    await show();
    // 56.0 and 97.5 where 70.0 and 95.2 are posted
    expect(headline()).toBe(
      'The grade book of Knots 1 for Quarter 2 averages 76.8\u00a0%; 2 posted grades are not what it computes.',
    );
  });

  it('is typed into by key, calculated at once, and saved with the version each score was typed over', async () => {
    const after = withScore('10', 3);
    const { person, sent } = await show({}, { [`PUT ${at}/scores`]: made(7, after) });
    await person.click(cell('Arden, Bo', 'Assignment 1'));
    await person.keyboard('10{Enter}');
    expect(headline()).toMatch(/; 1 unsaved\.$/);
    await person.keyboard('{Control>}s{/Control}');
    expect(await screen.findByText('1 score saved.')).not.toBeNull();
    expect(saved(sent)).toEqual([
      { changes: [{ assignmentId: 1, enrollmentId: 11, version: 2, points: '10', flag: null }] },
    ]);
    expect(headline()).not.toMatch(/unsaved/);
  });

  it('keeps what is typed while a save is on its way, over the version saved', async () => {
    let answer: (reply: object) => void = () => undefined;
    let now: BookReply = book;
    const { person, sent } = await show(
      {},
      {
        [`GET ${at}`]: () => now,
        [`PUT ${at}/scores`]: () => new Promise<object>((resolve) => (answer = resolve)),
      },
    );
    await person.click(cell('Arden, Bo', 'Assignment 1'));
    await person.keyboard('10{Enter}{Control>}s{/Control}');
    await person.click(cell('Arden, Bo', 'Assignment 1'));
    await person.keyboard('9{Enter}');
    now = withScore('10', 3);
    await act(async () => answer(now));
    await expect.poll(() => cell('Arden, Bo', 'Assignment 1').textContent).toBe('9');
    await person.keyboard('{Control>}s{/Control}');
    await expect.poll(() => saved(sent).at(-1)?.changes[0]).toMatchObject({ version: 3, points: '9' });
  });

  it('takes flags by their first letter, and says of an entry what would be right', async () => {
    const { person } = await show();
    await person.click(cell('Brine, Cy', 'Assignment 2'));
    await person.keyboard('m{Enter}');
    expect(scoreDrafts.get(draftId)?.now).toEqual({ '2/12': { text: 'missing', version: 2 } });
    await person.click(cell('Brine, Cy', 'Assignment 1'));
    await person.keyboard('9x{Enter}');
    expect(screen.getByText('1 entry cannot be saved yet').tagName).toBe('H2');
    expect(screen.getByRole('alert').textContent).toMatch(/^Brine, Cy.*Assignment 1.*“9x”: Points such as 8\.5/);
    expect(button(/^Save/).disabled).toBe(true);
    await person.keyboard('{Control>}z{/Control}');
    expect(button(/^Save/).disabled).toBe(false);
  });

  it('pastes a block over students and assignments, none of it onto who was not given one', async () => {
    const { person } = await show();
    await person.click(cell('Arden, Bo', 'Assignment 1'));
    fireEvent.paste(grid(), { clipboardData: { getData: () => '7\t6\t5\n3\t2\t1' } });
    const texts = (student: string) =>
      ['Assignment 1', 'Assignment 2', 'Assignment 4'].map((name) => cell(student, name).textContent);
    expect(texts('Brine, Cy')).toEqual(['3', '2', '1']);
    expect(texts('Arden, Bo').slice(0, 2)).toEqual(['7', '6']);
    expect(headline()).toMatch(/; 5 unsaved/);
    await person.click(button('Undo last step'));
    expect(headline()).not.toMatch(/unsaved/);
  });

  it('fills all that is empty in an assignment with one score, or says why it cannot', async () => {
    const scores = book.scores.filter(({ assignmentId }) => assignmentId !== 3);
    const { person } = await show({ scores });
    await person.click(button('Fill empty cells…'));
    const field = screen.getByLabelText(/^Points, or missing/);
    await person.clear(field);
    await person.type(field, '99{Enter}');
    expect(screen.getByRole('dialog').textContent).toContain('It is out of 50.');
    await person.clear(field);
    await person.type(field, '45{Enter}');
    expect(['Arden, Bo', 'Brine, Cy'].map((name) => cell(name, 'Assignment 3').textContent)).toEqual(['45', '45']);
  });

  it('whose score someone else saved first is not saved over it unasked', async () => {
    let now: BookReply = book;
    const { person, sent } = await show(
      {},
      {
        [`GET ${at}`]: () => now,
        [`PUT ${at}/scores`]: () => {
          now = withScore('4', 3);
          return {
            status: 409,
            title: 'Saved meanwhile',
            detail: 'Someone saved it.',
            errors: [{ field: 'x', detail: 'y' }],
          };
        },
      },
    );
    await person.click(cell('Arden, Bo', 'Assignment 1'));
    await person.keyboard('10{Enter}{Control>}s{/Control}');
    expect((await screen.findByText('Someone else saved 1 score')).tagName).toBe('H2');
    expect([cell('Arden, Bo', 'Assignment 1').textContent, button(/^Save/).disabled]).toEqual(['10', true]);
    await person.click(button('Keep mine over theirs'));
    await person.keyboard('{Control>}s{/Control}');
    await expect.poll(() => saved(sent).at(-1)?.changes[0]).toMatchObject({ version: 3, points: '10' });
  });

  it('asks before unsaved scores are left; staying loses nothing', async () => {
    const { person } = await show();
    await person.click(cell('Arden, Bo', 'Assignment 1'));
    await person.keyboard('10{Enter}');
    await person.click(screen.getByRole('link', { name: 'Grade sheet' }));
    expect(screen.getByRole('dialog', { name: '1 entry not saved yet' })).not.toBeNull();
    await person.click(button('Stay here'));
    expect(cell('Arden, Bo', 'Assignment 1').textContent).toBe('10');
    await person.click(screen.getByRole('link', { name: 'Grade sheet' }));
    await person.click(button('Leave and discard them'));
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe('The sheet');
    expect(scoreDrafts.get(draftId)).toBeUndefined();
  });

  it('is read only for who does not keep it, and once it is sealed', async () => {
    const { unmount, person } = await show({ canEdit: false });
    expect(screen.getByText('Ada Quay keeps it; you read it.').tagName).toBe('SPAN');
    await person.click(cell('Arden, Bo', 'Assignment 1'));
    await person.keyboard('10{Enter}');
    expect(scoreDrafts.get(draftId)).toBeUndefined();
    unmount();
    await show({ canEdit: false, sealedAt: '2026-01-30T10:00:00Z' });
    expect(screen.getByText('Sealed: it is read only.').tagName).toBe('SPAN');
  });

  it('without an assignment says how the first comes', async () => {
    await show({ assignments: [], scores: [] });
    expect(headline()).toMatch(/has no scores yet/);
    expect(screen.getByText('No assignment yet').parentElement?.textContent).toMatch(/New assignment/);
  });
});

describe('an assignment of the book', () => {
  it('is added like the last one, to other sections as well, and can be undone from the notice', async () => {
    const sisters = [{ sectionId: 8, section: 'Knots 2', isOwn: true }] as never;
    const { person, sent } = await show({ sisters }, { [`POST ${at}/assignments`]: made(9, { ...book, sisters }) });
    await person.click(button('New assignment'));
    await person.type(screen.getByLabelText('Name'), 'Bowline');
    expect(screen.getByLabelText('Out of')).toHaveProperty('value', '5');
    await person.click(screen.getByLabelText('Knots 2'));
    await person.click(button('Add it'));
    expect(await screen.findByText('Bowline is added to 2 sections.')).not.toBeNull();
    expect(sent.find(({ request }) => request === `POST ${at}/assignments`)?.body).toMatchObject({
      name: 'Bowline',
      categoryId: 1,
      alsoIn: [8],
      givenTo: null,
    });
  });

  it('that is refused says so beside the field and keeps what was typed', async () => {
    const { person } = await show(
      {},
      {
        [`PUT ${at}/assignments/1`]: {
          status: 422,
          detail: '',
          errors: [{ field: 'possible', detail: 'at least what is scored: 2 scores lie above 5' }],
        },
      },
    );
    await person.click(screen.getByRole('button', { name: /^Assignment 1/ }));
    const field = screen.getByLabelText('Out of');
    await person.clear(field);
    await person.type(field, '5');
    await person.click(button('Save it'));
    expect(await screen.findByText('at least what is scored: 2 scores lie above 5')).not.toBeNull();
    expect([field.getAttribute('aria-invalid'), (field as HTMLInputElement).value]).toEqual(['true', '5']);
  });
});
