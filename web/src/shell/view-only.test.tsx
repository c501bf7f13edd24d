import { usualView } from '#core/people';
import { screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { Role } from '#core/access';
import { showRoutes } from '../../test/show-at.fixture';
import { FileUp } from 'lucide-react';
import { Button } from '../ui/button';
import { Changeable } from '../ui/changeable';
import { FileDrop } from '../ui/file-drop';
import { useViewOnly } from '../ui/view-only';
import { createDraftStore } from './draft-store';
import { ViewOnlyNote } from './view-only-note';

const drafts = createDraftStore<string, null>('view-only-test');

function Desk() {
  const draft = drafts.use(1);
  return (
    <>
      <ViewOnlyNote />
      <Button look="main">Save</Button>
      <Button writes>New scale</Button>
      <Button>History</Button>
      <button type="button" onClick={() => drafts.change(1, null, 'saved', 'typed')}>
        type
      </button>
      <p data-testid="draft">{draft?.now ?? 'none'}</p>
      <Changeable>
        <input aria-label="From" />
      </Changeable>
      <FileDrop
        icon={FileUp}
        label="Export file"
        title="Drop it here"
        buttonWords="Choose a file"
        accept=".csv"
        mostMegabytes={1}
        tooLargeWords=""
        isReading={false}
        onFile={() => undefined}
      >
        CSV
      </FileDrop>
    </>
  );
}

const show = (address: string, role: Role, schoolId: number | null = 1) =>
  showRoutes([{ path: '*', element: <Desk /> }], {
    address,
    answers: {
      'GET /session': {
        person: { personId: 7, name: 'Any One', grants: [{ role, schoolId }] },
        timeZone: 'UTC',
        view: usualView,
      },
    },
  });
const buttons = () => screen.getAllByRole('button').map(({ textContent }) => textContent);

afterEach(() => {
  drafts.discard(1);
  useViewOnly.setState({ isViewOnly: false });
});

describe('a page that somebody may look at and not change', () => {
  it('says so, has no button that writes, and takes nothing that is typed', async () => {
    const { person } = show('scales', 'viewer');
    expect((await screen.findByRole('note')).textContent).toBe(
      'You can read Scales and not change it: your role does not allow that.',
    );
    expect(buttons()).toEqual(['History', 'type']);
    await person.click(screen.getByText('type'));
    expect(screen.getByTestId('draft').textContent).toBe('none');
    expect(screen.getByLabelText<HTMLInputElement>('From').matches(':disabled')).toBe(true);
    expect(screen.queryByLabelText('Export file')).toBeNull();
  });

  it.each([
    ['registrar', 'scales', 1],
    ['grading-administrator', 'runs/7', null],
    ['registrar', 'seal', 1],
  ] as const)('is no such page for a %s at %s', async (role, address, schoolId) => {
    const { person } = show(address, role, schoolId);
    await screen.findByText('Save');
    expect(screen.queryByRole('note')).toBeNull();
    await person.click(screen.getByText('type'));
    expect(screen.getByTestId('draft').textContent).toBe('typed');
    expect(screen.getByLabelText<HTMLInputElement>('From').matches(':disabled')).toBe(false);
    expect(screen.getByLabelText('Export file')).toBeTruthy();
  });

  it.each(['scales?view=codes', 'scales?view=gpa'])(
    'is what all schools share for an administrator of one: %s',
    async (address) => {
      show(address, 'grading-administrator');
      expect((await screen.findByRole('note')).textContent).toMatch(
        /^You can read (Codes|GPA) and not change it: all schools share it, and your role is not for all of them\.$/,
      );
      expect(buttons()).toEqual(['History', 'type']);
    },
  );

  it('is none of it for an administrator of all of them', async () => {
    show('scales?view=codes', 'grading-administrator', null);
    await screen.findByText('Save');
    expect(screen.queryByRole('note')).toBeNull();
  });

  it('is the seal for a grading administrator, who seals nothing', async () => {
    show('seal', 'grading-administrator');
    expect((await screen.findByRole('note')).textContent).toContain('You can read Seal');
  });
});
