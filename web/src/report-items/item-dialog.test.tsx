import { screen, within } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import type { Problem } from '#contract/problems';
import type { ItemEffectReply } from '#contract/report-items';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { ItemDialog } from './item-dialog';
import { bodyOfReply } from './item-draft';
import { reply } from '../../test/report-items.fixture';

const semester = reply.items[2]!;
const effect: ItemEffectReply = {
  periodName: 'Semester 1',
  sections: 2,
  grades: 40,
  changed: 3,
  rise: 2,
  fall: 1,
  moved: 1,
  passAnew: 0,
  failAnew: 1,
  postedOtherwise: 1,
  moves: [{ from: 'D', to: 'F', grades: 1 }],
  bands: [],
  students: [
    {
      studentId: 1,
      student: 'Skerry, Ava',
      studentNumber: '1001',
      section: 'Rope Work 2',
      item: 'Semester grade',
      before: '60.2',
      after: '59.4',
      from: 'D',
      to: 'F',
    },
  ],
  milliseconds: 40,
};
const refused: Problem = {
  type: 'urn:wombat:problem:fields-wrong',
  code: 'fields-wrong',
  title: 'Some fields cannot be taken',
  status: 422,
  detail: 'The name: a name that no other item of the school has.',
  errors: [{ field: 'name', detail: 'a name that no other item of the school has' }],
};

/** As on its page: it is gone when it closes. */
function Shown() {
  const [isOpen, setIsOpen] = useState(true);
  if (!isOpen) return <p>closed</p>;
  return (
    <ItemDialog schoolId={1} reply={reply} item={semester} onClose={() => setIsOpen(false)} onAdded={() => undefined} />
  );
}
const show = (answers: Answers) => showAt(<Shown />, { answers });
const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });

describe('a change of what an item comes to', () => {
  it('is looked at first, and only then saved as it was looked at', async () => {
    const { person, sent } = show({ 'POST /report-items/3/preview': effect, 'PUT /report-items/3': reply });
    await person.selectOptions(screen.getByLabelText('Decimals'), '0');
    expect(screen.queryByRole('button', { name: 'Save the item' })).toBeNull();
    await person.click(button('See what it would do'));
    const dialog = screen.getByRole('dialog');
    expect((await within(dialog).findByText(/It would change/)).textContent).toBe(
      'It would change 3 of 40 computed grades of Semester 1 in 2 sections: 2 up, 1 down, and 1 label; 1 would fail anew. ' +
        'Posted grades stay as they are; 1 of them would then differ from what is computed.',
    );
    expect(within(dialog).getByText('Skerry, Ava')).toBeTruthy();
    await person.click(button('Save the item'));
    await screen.findByText('closed');
    const changed = { ...bodyOfReply(semester), digits: 0 };
    expect(sent).toEqual([
      { request: 'POST /report-items/3/preview', body: changed },
      { request: 'PUT /report-items/3', body: { ...changed, revision: 'r1' } },
    ]);
    expect(screen.getByText('closed')).toBeTruthy();
  });

  it('can be gone back from, with all that was typed', async () => {
    const { person, sent } = show({ 'POST /report-items/3/preview': effect });
    await person.clear(screen.getByLabelText('Weight of part 1'));
    await person.type(screen.getByLabelText('Weight of part 1'), '30');
    expect(button('See what it would do').disabled).toBe(true);
    await person.clear(screen.getByLabelText('Weight of part 2'));
    await person.type(screen.getByLabelText('Weight of part 2'), '50');
    await person.click(button('See what it would do'));
    await screen.findByText(/It would change/);
    await person.click(button('Back to the item'));
    expect(screen.getByLabelText<HTMLInputElement>('Weight of part 2').value).toBe('50');
    expect(sent.map(({ request }) => request)).toEqual(['POST /report-items/3/preview']);
  });

  it('cannot be saved unseen where the server does not answer', async () => {
    const { person } = show({});
    await person.selectOptions(screen.getByLabelText('Decimals'), '0');
    await person.click(button('See what it would do'));
    expect((await screen.findByRole('alert')).textContent).toContain(
      'What you typed is kept here. Try again in a moment; what reached the server before shows as saved.',
    );
    expect(button('Save the item').disabled).toBe(true);
    expect(button('Try again').disabled).toBe(false);
  });
});

it('nothing can be typed into an item while it is saved, as its dialog closes after that', async () => {
  let answer: (reply: object) => void = () => undefined;
  const waiting = new Promise<object>((resolve) => (answer = resolve));
  const { person } = show({ 'PUT /report-items/3': () => waiting });
  await person.type(screen.getByLabelText('Name'), ' 2');
  await person.click(button('Save the item'));
  await person.type(screen.getByLabelText('Name'), ' and more');
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Semester grade 2');
  answer(reply);
  expect(await screen.findByText('closed')).toBeTruthy();
});

describe('a change of words', () => {
  it('is saved at once, and undone from the notice', async () => {
    const { person, sent } = show({
      'PUT /report-items/3': made(7, reply),
      'POST /changes/7/undo': made(8, { id: 8, action: 'undo: change Semester grade' }),
    });
    await person.clear(screen.getByLabelText('Name'));
    await person.type(screen.getByLabelText('Name'), 'Half-year grade');
    await person.click(button('Save the item'));
    await person.click(await screen.findByRole('button', { name: 'Undo' }));
    await screen.findByText('Undone: change Semester grade.');
    expect(sent).toEqual([
      {
        request: 'PUT /report-items/3',
        body: { ...bodyOfReply(semester), name: 'Half-year grade', revision: 'r1' },
      },
      { request: 'POST /changes/7/undo', body: undefined },
    ]);
  });

  it('that is refused stays in the dialog, with the reason at its field', async () => {
    const { person } = show({ 'PUT /report-items/3': refused });
    await person.clear(screen.getByLabelText('Name'));
    await person.type(screen.getByLabelText('Name'), 'Exam 2');
    await person.click(button('Save the item'));
    expect(await screen.findByText('a name that no other item of the school has')).toBeTruthy();
    expect(screen.getByLabelText('Name').getAttribute('aria-invalid')).toBe('true');
    expect(screen.queryByText('closed')).toBeNull();
  });
});

it('an item taken out is brought back from the notice, though its dialog is gone', async () => {
  const { person, sent } = show({
    'DELETE /report-items/3': made(7, reply),
    'POST /changes/7/undo': made(8, { id: 8, action: 'undo: remove Semester grade' }),
  });
  await person.click(button('Delete'));
  await person.click(await screen.findByRole('button', { name: 'Undo' }));
  await screen.findByText('Undone: remove Semester grade.');
  expect(sent.map(({ request }) => request)).toEqual(['DELETE /report-items/3', 'POST /changes/7/undo']);
});
