import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ChangeReply } from '#contract/changes';
import type { Problem } from '#contract/problems';
import { made, showAt } from '../../test/show-at.fixture';
import { RecentChanges } from './recent-changes';
import { ThingHistory } from './thing-history';

const change = (id: number, more: Partial<ChangeReply> = {}): ChangeReply => ({
  id,
  at: '2026-01-21T10:42:00.000Z',
  actor: 'Morwenna Oake',
  action: 'save the GPA settings',
  why: null,
  undoes: null,
  isUndone: false,
  canUndo: true,
  things: [
    {
      thing: 'gpa-settings district',
      called: 'the GPA settings',
      fields: [{ field: 'digits', before: '3', after: '2' }],
    },
  ],
  moreThings: 0,
  ...more,
});
const movedOn: Problem = {
  type: 'urn:wombat:problem:moved-on',
  code: 'moved-on',
  title: 'This cannot be undone any more',
  status: 409,
  detail: 'the GPA settings: Harun Quill did this since: save the GPA settings.',
  errors: [],
};

describe('the recent changes', () => {
  it('are opened by keyboard, say what each changed, and undo one', async () => {
    let changes = [change(7)];
    const { person, sent } = showAt(<RecentChanges />, {
      answers: {
        'GET /changes/mine': () => changes,
        'POST /changes/7/undo': () => {
          changes = [
            change(8, { action: 'undo: save the GPA settings', undoes: 7 }),
            change(7, { isUndone: true, canUndo: false }),
          ];
          return made(8, { id: 8, action: 'undo: save the GPA settings' });
        },
      },
    });
    await person.tab();
    await person.keyboard('{Enter}');
    const [first] = await screen.findAllByRole('listitem');
    expect(within(first!).getByRole('definition').textContent).toBe('3 2');
    await person.click(within(first!).getByRole('button', { name: /^Undo: save the GPA settings/ }));
    expect(await screen.findByText('Undone: save the GPA settings.')).toBeTruthy();
    expect(await screen.findByText(/, undone/)).toBeTruthy();
    expect(screen.getAllByRole('button', { name: /^Undo: / })).toHaveLength(1);
    expect(sent.map(({ request }) => request)).toContain('POST /changes/7/undo');
  });

  it('say what stands in the way of an undo, and leave the list as it is', async () => {
    const { person } = showAt(<RecentChanges />, {
      answers: { 'GET /changes/mine': [change(7)], 'POST /changes/7/undo': movedOn },
    });
    await person.click(screen.getByRole('button', { name: 'Recent changes' }));
    await person.click(await screen.findByRole('button', { name: /^Undo: / }));
    expect(
      await screen.findByText('the GPA settings: Harun Quill did this since: save the GPA settings.'),
    ).toBeTruthy();
    expect(screen.getByRole('button', { name: /^Undo: / })).toBeTruthy();
  });

  it.each([
    [{ 'GET /changes/mine': [] }, 'Nothing yet. What you save appears here, and can be undone from here.'],
    [{}, 'What you typed is kept here. Try again in a moment; what reached the server before shows as saved.'],
  ])('say so when there are none, or cannot be read: %#', async (answers, says) => {
    const { person } = showAt(<RecentChanges />, { answers });
    await person.click(screen.getByRole('button', { name: 'Recent changes' }));
    expect(await screen.findByText(says)).toBeTruthy();
  });
});

describe('the history of a thing', () => {
  it('says who made each change, what was and what is, and how many facts more', async () => {
    const fields = Array.from({ length: 9 }, (_each, at) => ({ field: `fact ${at}`, before: '', after: String(at) }));
    const made = change(7, { canUndo: false, things: [{ thing: 'codes district', called: 'the codes', fields }] });
    showAt(<ThingHistory thing="codes district" />, { answers: { 'GET /changes': [made] } });
    expect((await screen.findByText(/Morwenna Oake/)).textContent).toMatch(/Morwenna Oake$/);
    expect(screen.getByText('and 3 more facts')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });
});
