import { screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { PasskeyReply } from '#contract/people';
import { showAt, type Answers } from '../../../test/show-at.fixture';
import { PasskeysDialog } from './passkeys-dialog';

const laptop: PasskeyReply = { id: 7, name: 'Harbour laptop', madeAt: '2026-01-20T09:00:00Z', lastUsedAt: null };
const base64 = 'AAAA';
const options = {
  challenge: base64,
  rp: { name: 'Wombat', id: 'localhost' },
  user: { id: base64, name: 'harun', displayName: 'Harun' },
  pubKeyCredParams: [],
};
const show = (answers: Answers) =>
  showAt(<PasskeysDialog onClose={() => undefined} />, {
    answers: { 'GET /session/passkeys': [], 'POST /session/passkeys/options': options, ...answers },
  });
const create = vi.fn<(asked: unknown) => Promise<unknown>>();

/** What jsdom lacks of a browser that has passkeys. */
beforeEach(() => {
  vi.stubGlobal('PublicKeyCredential', class {});
  Object.defineProperty(navigator, 'credentials', { value: { create }, configurable: true });
});
afterEach(() => {
  vi.unstubAllGlobals();
  create.mockReset();
});

describe('passkeys', () => {
  it('are listed with when they were used, and removed', async () => {
    const { person, sent } = show({
      'GET /session/passkeys': [laptop, { ...laptop, id: 8, name: 'Phone', lastUsedAt: '2026-01-21T08:30:00Z' }],
      'DELETE /session/passkeys/7': [{ ...laptop, id: 8, name: 'Phone' }],
    });
    expect((await screen.findByText('Harbour laptop')).nextSibling!.textContent).toMatch(/; not used yet$/);
    expect(screen.getByText('Phone').nextSibling!.textContent).toMatch(/; last used .*08:30$/);
    await person.click(screen.getByRole('button', { name: 'Remove Harbour laptop' }));
    await expect.poll(() => screen.queryByText('Harbour laptop')).toBeNull();
    expect(sent.map(({ request }) => request)).toContain('DELETE /session/passkeys/7');
  });

  it('of a device that is cancelled, or has one already, say so, and change nothing', async () => {
    create.mockRejectedValueOnce(new DOMException('cancelled', 'NotAllowedError'));
    const { person, sent } = show({});
    await screen.findByText('You have none yet.');
    await person.click(screen.getByRole('button', { name: 'Add a passkey' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/did not answer, or it was cancelled/);
    create.mockRejectedValueOnce(new DOMException('known', 'InvalidStateError'));
    await person.click(screen.getByRole('button', { name: 'Add a passkey' }));
    expect(await screen.findByText('This device has a passkey for your account already.')).toBeTruthy();
    expect(sent.map(({ request }) => request)).not.toContain('POST /session/passkeys');
  });

  it('need a name to be called by', async () => {
    const { person } = show({});
    await person.clear(await screen.findByRole('textbox', { name: 'Name of the device' }));
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add a passkey' }).disabled).toBe(true);
  });

  it('are told to be elsewhere where the browser has none', async () => {
    vi.unstubAllGlobals();
    show({});
    expect(await screen.findByText(/This browser has no passkeys here/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Add a passkey' })).toBeNull();
  });
});
