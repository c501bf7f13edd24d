import { screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { showAt } from '../shell/show-at.fixture';
import { Dialog } from './dialog';

/** Opened as on the pages: drawn only while it is open, or always and shown when it is. */
function Page({ isAlwaysThere }: { isAlwaysThere: boolean }) {
  const [isOpen, setIsOpen] = useState(false);
  return (
    <>
      <button type="button">Before</button>
      <button type="button" onClick={() => setIsOpen(true)}>
        Edit
      </button>
      {(isAlwaysThere || isOpen) && (
        <Dialog
          isOpen={isOpen}
          onOpenChange={setIsOpen}
          title="An item"
          footer={
            <button type="button" onClick={() => setIsOpen(false)}>
              Cancel
            </button>
          }
        >
          <input aria-label="Name" />
        </Dialog>
      )}
    </>
  );
}

it.each([
  ['Esc', true],
  ['Esc', false],
  ['Cancel', true],
  ['Cancel', false],
])('by %s a dialog gives the focus back to what opened it (always there: %s)', async (way, isAlwaysThere) => {
  const { person } = showAt(<Page isAlwaysThere={isAlwaysThere} />);
  screen.getByRole('button', { name: 'Edit' }).focus();
  await person.keyboard('{Enter}');
  expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Name' }));
  if (way === 'Esc') await person.keyboard('{Escape}');
  else await person.click(screen.getByRole('button', { name: 'Cancel' }));
  await expect.poll(() => document.activeElement?.textContent).toBe('Edit');
});
