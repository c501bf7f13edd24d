import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { auditOf, evidence, finding, registrar, run, show } from '../../../test/findings.fixture';
import { made } from '../../../test/show-at.fixture';

const note = {
  comment: 'Rang the office.',
  assignedTo: { id: 8, name: 'Tamsin Reed' },
  by: 'Morwenna Lark',
  at: '2026-01-21T09:30:00Z',
};
const findings = [
  finding(1, 'Fennick, Ada', { note, noteRevision: 'said' }),
  finding(2, 'Harrow, Col'),
  finding(3, 'Larkin, Bea'),
];
const showNoted = (answers: Parameters<typeof show>[1] = {}, address?: string) =>
  show(
    run({ findings }),
    {
      'GET /session': registrar,
      'GET /audit/assignees': [
        { id: 1, name: 'Morwenna Lark' },
        { id: 8, name: 'Tamsin Reed' },
      ],
      ...answers,
    },
    address,
  );

describe('whose a finding is', () => {
  it('is told beside it, with what was said', async () => {
    await showNoted();
    const said = evidence().getByText('“Rang the office.”');
    expect(said.previousSibling!.textContent).toBe('Tamsin Reed sees to it.');
    expect(said.nextSibling!.textContent).toMatch(/^Morwenna Lark, Wed, Jan 21/);
  });

  it('is said by key, of one or of all alike', async () => {
    const { person, sent } = await showNoted({ 'PUT /audit/notes': () => made(7, auditOf(run({ findings }))) });
    await evidence().findByRole('button', { name: /^Whose/ });
    await person.keyboard('jo');
    const dialog = within(await screen.findByRole('dialog', { name: 'Whose is this finding?' }));
    await dialog.findByRole('option', { name: 'Tamsin Reed' });
    await person.selectOptions(dialog.getByLabelText('Whose'), '8');
    await person.type(dialog.getByRole('textbox'), ' Asked the coach. ');
    await person.click(dialog.getByRole('checkbox'));
    expect(screen.getByRole('dialog', { name: 'Whose are 3 findings?' })).not.toBeNull();
    await person.click(dialog.getByRole('button', { name: 'Save' }));
    await expect
      .poll(() => sent.find(({ request }) => request === 'PUT /audit/notes')?.body)
      .toMatchObject({
        findings: [
          { enrollmentId: 2, revision: 'none' },
          { enrollmentId: 1, revision: 'said' },
          { enrollmentId: 3, revision: 'none' },
        ],
        comment: 'Asked the coach.',
        assignedTo: 8,
      });
    expect(await screen.findByText('Said of 3 findings.')).not.toBeNull();
    expect(screen.queryByRole('dialog')).toBeNull();
  });

  it('begins with what was said before, and a refusal stays beside its field', async () => {
    const errors = [{ field: 'assignedTo', detail: 'somebody who may settle findings here' }];
    const { person } = await showNoted({
      'PUT /audit/notes': { status: 422, title: 'Wrong', detail: 'Not so.', errors },
    });
    await evidence().findByRole('button', { name: /^Whose/ });
    await person.keyboard('o');
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.getByRole<HTMLTextAreaElement>('textbox').value).toBe('Rang the office.');
    await person.click(dialog.getByRole('button', { name: 'Save' }));
    expect(await dialog.findByText('somebody who may settle findings here')).not.toBeNull();
  });

  it('gathers findings', async () => {
    const { person } = await showNoted({}, 'findings?by=assignee');
    await person.click(screen.getByRole('button', { name: /^Tamsin Reed/ }));
    expect(screen.getAllByRole('row').filter((row) => row.textContent.includes('Fennick'))).toHaveLength(1);
    expect(screen.queryByText('Harrow, Col')).toBeNull();
  });

  it('says how to begin where nobody has any', async () => {
    await show(run(), {}, 'findings?by=assignee');
    expect(screen.getByText('No finding is anybody’s yet. Press o to say whose one is.')).not.toBeNull();
  });
});
