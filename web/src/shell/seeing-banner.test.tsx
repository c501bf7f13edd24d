import { usualView } from '#core/people';
import { screen } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import { showRoutes } from '../../test/show-at.fixture';
import { Button } from '../ui/button';
import { useViewOnly } from '../ui/view-only';
import { useKeptDrafts } from './kept-drafts';
import { SeeingBanner } from './seeing-banner';
import { ViewOnlyNote } from './view-only-note';

const harun = { personId: 7, name: 'Harun Nance', grants: [{ role: 'teacher', schoolId: 1 }] };
const morwenna = { personId: 1, name: 'Morwenna Oake', grants: [{ role: 'registrar', schoolId: null }] };
const reply = { csrfToken: 't', timeZone: 'UTC', district: null, view: usualView };

afterEach(() => useViewOnly.setState({ isViewOnly: false }));

it('whoever sees as another person is told so on every page, changes nothing there, and goes back', async () => {
  const page = (
    <>
      <SeeingBanner />
      <ViewOnlyNote />
      <Button look="main">Save</Button>
    </>
  );
  const { person, sent } = showRoutes([{ path: '*', element: page }], {
    address: 'grade-sheets/3',
    answers: {
      'GET /session': { ...reply, person: harun, seenBy: 'Morwenna Oake, seeing as Harun Nance' },
      'DELETE /session/seeing': { ...reply, person: morwenna, seenBy: null },
    },
  });
  expect((await screen.findByRole('note')).textContent).toContain('You see what Harun Nance sees, and change nothing.');
  expect(screen.queryByText('Save')).toBeNull();
  // What Harun typed in this browser and did not save is not shown to who looks.
  expect(useKeptDrafts.getState().personId).toBe(0);
  await person.click(screen.getByRole('button', { name: 'Back to my own view' }));
  await expect.poll(() => screen.queryByRole('note')).toBeNull();
  expect(sent.some(({ request }) => request === 'DELETE /session/seeing')).toBe(true);
  expect(useKeptDrafts.getState().personId).toBe(1);
});
