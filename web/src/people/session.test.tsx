import { usualView } from '#core/people';
import { screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Problem } from '#contract/problems';
import { showAt } from '../../test/show-at.fixture';
import { markDrafts } from '../posting/mark-drafts';
import { PersonMenu } from '../shell/person-menu';
import { showDraftsOf } from '../shell/kept-drafts';
import { api } from '../shell/api';
import { useSession } from '../shell/session';
import { noteSession } from '../shell/session-state';
import { SignInAgain } from './sign-in-again';
import { useQuery } from '@tanstack/react-query';

const harun = { personId: 7, name: 'Harun Nance', grants: [{ role: 'teacher', schoolId: 1 }] } as const;
const session = { person: harun, csrfToken: 't', timeZone: 'Europe/London', district: 'Saltmarsh', view: usualView };
const ended: Problem = {
  type: 'urn:wombat:problem:not-signed-in',
  code: 'not-signed-in',
  status: 401,
  title: 'Sign in',
  detail: 'Sign in to continue.',
  errors: [],
};

/** A page with grades on it, and what stands around it. */
function Page() {
  const { data } = useSession();
  const { data: grades, refetch } = useQuery({ queryKey: ['grades'], queryFn: () => api.get<string[]>('/grades') });
  if (!data) return <p>{data === null ? 'The way in' : 'One moment'}</p>;
  return (
    <>
      <PersonMenu person={data.person} />
      <p>{grades?.join('; ')}</p>
      <button onClick={() => void refetch()}>Read again</button>
      <SignInAgain person={data.person} />
    </>
  );
}

const answers = { 'GET /session': session, 'GET /grades': ['Thorn, Finn 77'], 'DELETE /session': {} };
const type = () => markDrafts.change('13/1/4', null, {}, { 1: { version: 0, mark: {} as never } });

beforeEach(() => noteSession('lasts'));
afterEach(() => showDraftsOf(0));

describe('signing out', () => {
  const leave = async (person: ReturnType<typeof showAt>['person']) => {
    await screen.findByText('Thorn, Finn 77');
    await person.click(screen.getByRole('button', { name: /Harun Nance/ }));
    await person.click(screen.getByRole('menuitem', { name: 'Sign out' }));
  };

  it('takes every name and grade off the screen at once', async () => {
    const { person } = showAt(<Page />, { answers });
    await leave(person);
    await screen.findByText('The way in');
    expect(screen.queryByText(/Thorn/)).toBeNull();
  });

  it('asks what is to become of what is not saved; kept, it is there when the same person comes back', async () => {
    const { person, sent } = showAt(<Page />, { answers });
    await screen.findByText('Thorn, Finn 77');
    type();
    await leave(person);
    const dialog = await screen.findByRole('dialog', { name: 'You have unsaved changes to 1 grade sheet' });
    expect(sent.some(({ request }) => request === 'DELETE /session')).toBe(false);
    await person.click(within(dialog).getByRole('button', { name: 'Keep them and sign out' }));
    await screen.findByText('The way in');
    expect(markDrafts.get('13/1/4')).toBeUndefined();
    showDraftsOf(8);
    expect(markDrafts.get('13/1/4')).toBeUndefined();
    showDraftsOf(7);
    expect(markDrafts.get('13/1/4')).toBeDefined();
  });

  it('discards it where one says so, and does nothing where one stays', async () => {
    const { person, sent } = showAt(<Page />, { answers });
    await screen.findByText('Thorn, Finn 77');
    type();
    await leave(person);
    await person.click(await screen.findByRole('button', { name: 'Stay' }));
    expect(sent.some(({ request }) => request === 'DELETE /session')).toBe(false);
    await leave(person);
    await person.click(await screen.findByRole('button', { name: 'Discard them and sign out' }));
    await screen.findByText('The way in');
    showDraftsOf(7);
    expect(markDrafts.get('13/1/4')).toBeUndefined();
  });
});

describe('a session that ends by itself', () => {
  const shown = (signedIn: object) => {
    let grades: object = answers['GET /grades'];
    const begin = () => {
      grades = ['Thorn, Finn 80'];
      return signedIn;
    };
    const view = showAt(<Page />, {
      answers: {
        ...answers,
        'GET /grades': () => grades,
        'POST /session': begin,
        'POST /session/passkey/options': { challenge: 'AAAA' },
        'POST /session/passkey': begin,
      },
    });
    const end = async () => {
      await screen.findByText('Thorn, Finn 77');
      type();
      grades = ended;
      await view.person.click(screen.getByRole('button', { name: 'Read again' }));
      return screen.findByRole('dialog', { name: 'Your session has ended' });
    };
    const signIn = async (dialog: HTMLElement) => {
      await view.person.type(within(dialog).getByLabelText('Sign-in name'), 'harun');
      await view.person.type(within(dialog).getByLabelText('Password'), 'low-tide{Enter}');
    };
    return { ...view, end, signIn };
  };

  it('leaves the page as it is, with what was typed, and goes on with it once one signed in again', async () => {
    const { end, signIn, address } = shown({ ...session, csrfToken: 'new' });
    const dialog = await end();
    expect(screen.getByText('Thorn, Finn 77')).toBeDefined();
    await signIn(dialog);
    await screen.findByText('Thorn, Finn 80');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect([address(), markDrafts.get('13/1/4') !== undefined]).toEqual(['/school/1/period/4/here', true]);
  });

  it('goes on by a passkey as well, and says so where the device gives none', async () => {
    const get = vi.fn<() => Promise<unknown>>().mockRejectedValueOnce(new DOMException('cancelled', 'NotAllowedError'));
    vi.stubGlobal('PublicKeyCredential', class {});
    Object.defineProperty(navigator, 'credentials', { value: { get }, configurable: true });
    const { end, person } = shown({ ...session, csrfToken: 'new' });
    const dialog = await end();
    const key = within(dialog).getByRole('button', { name: 'Sign in with a passkey' });
    await person.click(key);
    expect((await within(dialog).findByRole('alert')).textContent).toMatch(/did not answer, or it was cancelled/);
    const bytes = new Uint8Array([1]).buffer;
    const response = { authenticatorData: bytes, clientDataJSON: bytes, signature: bytes };
    get.mockResolvedValueOnce({
      id: 'AQ',
      rawId: bytes,
      type: 'public-key',
      response,
      getClientExtensionResults: Object,
    });
    await person.click(key);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(markDrafts.get('13/1/4')).toBeDefined();
    vi.unstubAllGlobals();
  });

  it('says what is wrong with the password, and stays', async () => {
    const { end, signIn } = shown({ ...ended, code: 'sign-in-failed', detail: 'No account has this name.' });
    const dialog = await end();
    await signIn(dialog);
    expect((await within(dialog).findByRole('alert')).textContent).toBe('No account has this name.');
  });

  it('begins anew where somebody else signs in: nothing that was typed is theirs', async () => {
    const morwenna = { personId: 8, name: 'Morwenna Oake', grants: [{ role: 'registrar', schoolId: null }] };
    const { end, signIn, address } = shown({ ...session, person: morwenna });
    await signIn(await end());
    await waitFor(() => expect(address()).toBe('/'));
    expect(markDrafts.get('13/1/4')).toBeUndefined();
  });
});
