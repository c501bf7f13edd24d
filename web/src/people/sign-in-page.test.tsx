import { usualView } from '#core/people';
import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { showAt, type Answers } from '../../test/show-at.fixture';
import { SignInPage } from './sign-in-page';

const nobody = { status: 401, title: '', detail: '', code: 'not-signed-in', errors: [] };
const session = {
  person: { personId: 1, name: 'Morwenna Hale', grants: [{ role: 'registrar', schoolId: null }] },
  csrfToken: 't',
  view: usualView,
  timeZone: 'Europe/London',
  district: 'Port Elowen',
};
const show = (answers: Answers = {}) =>
  showAt(<SignInPage />, { answers: { 'GET /session': nobody, 'GET /session/demo-people': [], ...answers } });

describe('signing in', () => {
  it('sends what was typed by Enter, and nothing else', async () => {
    const { person, sent } = show({ 'POST /session': session });
    await person.type(await screen.findByLabelText('Sign-in name'), 'morwenna');
    await person.type(screen.getByLabelText('Password'), 'low-tide{Enter}');
    await expect
      .poll(() => sent.find(({ request }) => request === 'POST /session')?.body)
      .toEqual({ username: 'morwenna', password: 'low-tide' });
  });

  it.each([
    [
      'a name that is missing, beside it',
      {
        status: 422,
        title: '',
        detail: 'The marked fields say what is wrong.',
        code: 'fields-wrong',
        errors: [{ field: 'username', detail: 'type your sign-in name' }],
      },
      'type your sign-in name',
    ],
    [
      'a wrong password, without saying which of the two is wrong',
      {
        status: 401,
        title: 'Sign-in failed',
        detail: 'No account has this name with this password.',
        code: 'sign-in-failed',
        errors: [],
      },
      'No account has this name with this password.',
    ],
    [
      'too many tries',
      {
        status: 429,
        title: 'Too many tries',
        detail: 'Wait a minute before signing in again.',
        code: 'too-many-tries',
        errors: [],
      },
      'Wait a minute before signing in again.',
    ],
  ])('is refused for %s, and what was typed stays', async (_what, problem, says) => {
    const { person } = show({ 'POST /session': problem });
    await person.type(await screen.findByLabelText('Password'), 'high-tide');
    await person.click(screen.getByRole('button', { name: 'Sign in' }));
    expect((await screen.findByText(says)).textContent).toBe(says);
    expect(screen.getByLabelText('Password')).toHaveProperty('value', 'high-tide');
  });

  it('asks for a link by the name that was typed, and leads back', async () => {
    const { person, sent } = show({ 'POST /session/link/ask': {} });
    await person.type(await screen.findByLabelText('Sign-in name'), 'harun');
    await person.click(screen.getByRole('button', { name: 'Forgotten password?' }));
    expect(screen.getByLabelText('Sign-in name or e-mail')).toHaveProperty('value', 'harun');
    await person.click(screen.getByRole('button', { name: 'Send a link' }));
    expect((await screen.findByRole('status')).textContent).toMatch(/If there is an account of that name/);
    expect(sent.at(-1)).toEqual({ request: 'POST /session/link/ask', body: { name: 'harun' } });
    await person.click(screen.getByRole('button', { name: 'Back to sign in' }));
    expect(screen.getByLabelText('Sign-in name')).toHaveProperty('value', 'harun');
  });

  it('says how long to wait before another link', async () => {
    const wait = { status: 429, title: '', detail: 'Wait 40 minutes.', code: 'too-many-tries', errors: [] };
    const { person } = show({ 'POST /session/link/ask': wait });
    await person.click(await screen.findByRole('button', { name: 'Forgotten password?' }));
    await person.type(screen.getByLabelText('Sign-in name or e-mail'), 'harun{Enter}');
    expect((await screen.findByRole('alert')).textContent).toBe('Wait 40 minutes.');
    expect(screen.getByLabelText('Sign-in name or e-mail')).toHaveProperty('value', 'harun');
  });

  it('offers the people of the demo while there are some', async () => {
    const harun = { username: 'harun', password: 'low-tide', name: 'Harun Nance', does: 'teaches' };
    const { person, sent } = show({ 'GET /session/demo-people': [harun], 'POST /session': session });
    await person.click(await screen.findByRole('button', { name: /Harun Nance/ }));
    await expect
      .poll(() => sent.find(({ request }) => request === 'POST /session')?.body)
      .toEqual({ username: 'harun', password: 'low-tide' });
  });
});
