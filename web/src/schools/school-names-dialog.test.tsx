import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Problem } from '#contract/problems';
import type { SchoolNamesReply } from '#contract/schools';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { SchoolNamesDialog } from './school-names-dialog';

const names: SchoolNamesReply = {
  revision: 'r1',
  name: 'Skerry Upper School',
  shortName: 'Skerry',
  code: 'SKY',
  district: { name: 'Skerry Islands', timeZone: 'Atlantic/Faroe' },
};
const show = (answers: Answers) =>
  showAt(<SchoolNamesDialog schoolId={1} onClose={() => undefined} />, {
    answers: { 'GET /schools/1/names': names, ...answers },
  });
const shortName = () => screen.findByRole('textbox', { name: 'Short name' });
const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save' });
const sentTo = (sent: readonly { request: string; body: unknown }[]) =>
  sent.filter(({ request }) => request === 'PUT /schools/1/names').map(({ body }) => body);

describe('the names of a school', () => {
  it('are saved as typed, and not without one', async () => {
    const { person, sent } = show({ 'PUT /schools/1/names': made(4, { ...names, shortName: 'Harbour' }) });
    await person.clear(await shortName());
    expect(save().disabled).toBe(true);
    await person.type(await shortName(), 'Harbour');
    await person.click(save());
    expect(await screen.findByText('Harbour and the district are called so now.')).toBeTruthy();
    expect(sentTo(sent)).toEqual([{ ...names, shortName: 'Harbour' }]);
  });

  it('stay as typed where somebody was first, and are saved upon theirs once one was told so', async () => {
    const first: Problem = {
      type: '',
      title: '',
      status: 409,
      code: 'set-up-changed',
      detail: 'The names changed.',
      errors: [],
    };
    let now = names;
    const { person, sent } = show({
      'GET /schools/1/names': () => now,
      'PUT /schools/1/names': (body) =>
        (body as SchoolNamesReply).revision === now.revision ? { ...names, revision: 'r3' } : first,
    });
    await person.type(await shortName(), ' Head');
    now = { ...names, revision: 'r2', code: 'SKH' };
    await person.click(save());
    expect((await screen.findByRole('alert')).textContent).toBe('The names changed.');
    expect((await shortName()).getAttribute('value')).toBe('Skerry Head');
    await expect.poll(() => screen.getByRole('textbox', { name: 'Code' }).getAttribute('value')).toBe('SKH');
    await person.click(save());
    // What was not typed here is as the other one saved it.
    await expect
      .poll(() => sentTo(sent))
      .toEqual([
        { ...names, shortName: 'Skerry Head' },
        { ...names, shortName: 'Skerry Head', revision: 'r2', code: 'SKH' },
      ]);
  });
});
