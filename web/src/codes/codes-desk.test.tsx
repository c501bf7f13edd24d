import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { newCode } from '#core/codes';
import { bodyOfCode, type CodesReply } from '#contract/codes';
import { made, showAt } from '../../test/show-at.fixture';
import { CodesDesk } from './codes-desk';

const codes: CodesReply = {
  revision: 'r1',
  codes: [
    newCode('INC', 'Incomplete', { needsLastDate: true }),
    newCode('EXM', 'Exempt'),
    newCode('NVA', 'Never attended'),
  ].map((code, at) => ({ ...bodyOfCode(code), grades: at })),
};
const scales = { scales: [], placements: [], courses: [], departments: [] };
const show = async (address: string, saved: () => object = () => made(7, codes)) => {
  const view = showAt(<CodesDesk viewSwitch={null} />, {
    address,
    answers: {
      'GET /codes': codes,
      'GET /schools/1/scales': scales,
      'PUT /codes': saved,
      'POST /changes/7/undo': made(8, { id: 8, action: 'undo: save the codes' }),
    },
  });
  await screen.findByText('3 codes');
  return view;
};
const edited = () => screen.getByLabelText<HTMLInputElement>('Code').value;

describe('the code that is looked at', () => {
  it('stands in the address, so that a reload shows the same one', async () => {
    const { person, search, unmount } = await show('scales?view=codes');
    expect([edited(), search()]).toEqual(['INC', '?view=codes']);
    await person.click(screen.getByRole('button', { name: /NVA/ }));
    expect([edited(), search()]).toEqual(['NVA', '?view=codes&code=NVA']);
    unmount();
    await show('scales?view=codes&code=NVA');
    expect(edited()).toBe('NVA');
  });

  it('is the first where the address names none that there is', async () => {
    await show('scales?view=codes&code=ZZZ');
    expect(edited()).toBe('INC');
  });

  it('stays the one that is renamed, also while its name is for a moment that of another', async () => {
    const { person } = await show('scales?view=codes&code=NVA');
    await person.clear(screen.getByLabelText('Code'));
    await person.type(screen.getByLabelText('Code'), 'exm');
    expect(edited()).toBe('EXM');
    expect(screen.getAllByRole('alert').length).toBeGreaterThan(0);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /Save the codes/ }).disabled).toBe(true);
    await person.type(screen.getByLabelText('Code'), '2');
    expect([edited(), screen.queryAllByRole('alert').length]).toEqual(['EXM2', 0]);
    expect(screen.getByLabelText<HTMLInputElement>('Means').value).toBe('Never attended');
  });
});

it('a new code is at the cursor at once, is saved with the list it was begun from, and the notice takes it back', async () => {
  const { person, sent } = await show('scales?view=codes');
  await person.click(screen.getByRole('button', { name: 'New code' }));
  await person.type(screen.getByLabelText('Code'), 'abs');
  await person.type(screen.getByLabelText('Means'), 'Absent');
  await person.click(screen.getByRole('button', { name: /Save the codes/ }));
  const put = sent.filter(({ request }) => request === 'PUT /codes');
  expect(put).toHaveLength(1);
  expect(put[0]!.body).toMatchObject({ revision: 'r1', codes: [{}, {}, {}, { code: 'ABS', meaning: 'Absent' }] });
  await person.click(await screen.findByRole('button', { name: 'Undo' }));
  expect(await screen.findByText('Undone: save the codes.')).toBeTruthy();
  expect(sent.filter(({ request }) => request.startsWith('POST')).map(({ request }) => request)).toEqual([
    'POST /changes/7/undo',
  ]);
});
