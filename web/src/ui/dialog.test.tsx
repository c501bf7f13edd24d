import { screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { showAt } from '../../test/show-at.fixture';
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

const field = () => screen.queryByRole<HTMLInputElement>('textbox', { name: 'Name' });

it.each([true, false])(
  'asks before it drops what was typed, and Esc goes on editing (always there: %s)',
  async (isAlwaysThere) => {
    const { person } = showAt(<Page isAlwaysThere={isAlwaysThere} />);
    await person.click(screen.getByRole('button', { name: 'Edit' }));
    await person.type(field()!, 'Exam');
    await person.keyboard('{Escape}');
    expect(screen.getByRole('alert').textContent).toMatch(/^What you typed here is not saved\./);
    expect(document.activeElement?.textContent).toBe('Keep editing');
    await person.keyboard('{Escape}');
    expect([screen.queryByRole('alert'), field()!.value]).toEqual([null, 'Exam']);
    await person.keyboard('{Escape}');
    await person.click(screen.getByRole('button', { name: 'Discard' }));
    expect(field()).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Edit' }));
    await person.keyboard('{Escape}');
    expect(field()).toBeNull();
  },
);
