import { usualView } from '#core/people';
import { act, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { showAt } from '../../test/show-at.fixture';
import type { Problem } from '#contract/problems';
import { api } from './api';
import { useSession } from './session';
import { SessionPauseBanner } from './session-pause-banner';
import { notePause, useSessionPause } from './session-pause';
import { noteSession, useSessionState } from './session-state';

const minute = 60_000;
const harun = { personId: 7, name: 'Harun Nance', grants: [{ role: 'teacher', schoolId: 1 }] };
const session = { person: harun, seenBy: null, csrfToken: 't', timeZone: 'UTC', district: null, view: usualView };
const ended: Problem = {
  type: 'urn:wombat:problem:not-signed-in',
  code: 'not-signed-in',
  status: 401,
  title: 'Sign in',
  detail: 'Sign in to continue.',
  errors: [],
};

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval'], now: 0 });
  noteSession('lasts');
  useSessionPause.setState({ usedAt: 0, heardAt: 0 });
});
afterEach(() => {
  vi.useRealTimers();
  notePause(null);
});

function Page() {
  useSession();
  return (
    <>
      <SessionPauseBanner />
      <textarea aria-label="Comment" />
    </>
  );
}

/** The page of a session of an hour, and what its requests say of whether somebody is there. */
async function show(answer: object = { ...session, pauseSeconds: 3600 }) {
  const shown = showAt(<Page />, { answers: { 'GET /session': answer } });
  await expect.poll(() => shown.sent).toHaveLength(1);
  await act(async () => notePause(3600));
  await act(async () => useSessionPause.setState({ usedAt: 0, heardAt: 0 }));
  return shown;
}
const passes = (milliseconds: number) => act(() => vi.advanceTimersByTimeAsync(milliseconds));
const warning = () => screen.queryByRole('alert')?.textContent;
const left = () => screen.getByRole('timer').textContent;

it('warns two minutes before a session ends unused, counts the seconds, and says that it has ended', async () => {
  await show();
  await passes(57 * minute);
  expect(warning()).toBeUndefined();
  await passes(61_000);
  expect(warning()).toMatch(/^Nothing was typed here for a while, so your session is about to end/);
  await passes(39_000);
  expect(left()).toBe('80 seconds left');
  await passes(79_000);
  expect(left()).toBe('1 second left');
  expect(useSessionState.getState().state).toBe('lasts');
  await passes(1_000);
  expect(useSessionState.getState().state).toBe('ended');
  expect(warning()).toBeUndefined();
});

it('any key extends it, and is typed where the cursor stands', async () => {
  const { sent } = await show();
  await passes(59 * minute);
  expect(left()).toBe('60 seconds left');
  fireEvent.keyDown(screen.getByRole('textbox'), { key: 'h' });
  await expect.poll(() => sent).toHaveLength(2);
  await passes(1_000);
  expect(warning()).toBeUndefined();
  await passes(57 * minute);
  expect(warning()).toBeUndefined();
});

it('a click on the button does too', async () => {
  const { sent } = await show();
  await passes(59 * minute);
  fireEvent.pointerDown(screen.getByRole('button', { name: 'Stay signed in' }));
  await expect.poll(() => sent).toHaveLength(2);
  await passes(1_000);
  expect(warning()).toBeUndefined();
});

it('whoever types without saving is heard of once a minute, not at each key', async () => {
  const { sent } = await show();
  for (let seconds = 0; seconds < 150; seconds++) {
    fireEvent.keyDown(screen.getByRole('textbox'), { key: 'h' });
    await passes(1_000);
  }
  expect(sent).toHaveLength(3);
});

it('what the page asks by itself says so, and lets the session end', async () => {
  const { sent } = await show();
  const headers = () => vi.mocked(fetch).mock.calls.map(([, how]) => how?.headers);
  vi.stubGlobal('fetch', vi.fn(fetch));
  await passes(2 * minute);
  await api.get('/session');
  fireEvent.keyDown(window, { key: 'h' });
  await expect.poll(() => sent).toHaveLength(3);
  expect(headers()).toEqual([{ 'x-csrf-token': 't', 'x-wombat-unattended': '1' }, { 'x-csrf-token': 't' }]);
});

it('another tab that is used extends it here', async () => {
  await show();
  await passes(59 * minute);
  await act(async () => {
    window.dispatchEvent(new StorageEvent('storage', { key: 'wombat-session-used', newValue: String(Date.now()) }));
  });
  expect(warning()).toBeUndefined();
});

it('a session that had ended after all leads to signing in again, where one is', async () => {
  let answer: object = { ...session, pauseSeconds: 3600 };
  await show(() => answer);
  await passes(59 * minute);
  answer = ended;
  fireEvent.keyDown(window, { key: 'h' });
  await expect.poll(() => useSessionState.getState().state).toBe('ended');
});
