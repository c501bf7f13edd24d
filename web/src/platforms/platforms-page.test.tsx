import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { PlatformReply } from '#contract/platforms';
import { showAt, type Answers } from '../../test/show-at.fixture';
import { PlatformsPage } from './platforms-page';

const platform = (over: Partial<PlatformReply> = {}): PlatformReply => ({
  id: 5,
  name: 'Quillpond',
  address: 'https://quillpond.example',
  clientId: 'wombat',
  state: 'read',
  done: 0,
  total: 0,
  problem: null,
  readAt: '2026-01-21T08:00:00Z',
  classes: 122,
  people: 560,
  open: 145,
  ...over,
});
const show = (platforms: readonly PlatformReply[], answers: Answers = {}) =>
  showAt(<PlatformsPage />, { answers: { 'GET /platforms': platforms, ...answers } });
const headline = async () => (await screen.findByRole('heading', { level: 1 })).textContent;

describe('the learning platforms', () => {
  it.each<[string, PlatformReply[], string]>([
    ['without one', [], 'No learning platform is connected to this school.'],
    [
      'with one that waits',
      [platform()],
      '1 learning platform is connected. 145 classes and names wait to be joined to ours.',
    ],
    [
      'with two that are decided',
      [platform({ open: 0 }), platform({ id: 6, name: 'Reef', open: 0 })],
      '2 learning platforms are connected. All their classes and names are decided.',
    ],
  ])('are told of in one sentence: %s', async (_what, platforms, says) => {
    show(platforms);
    expect(await headline()).toBe(says);
  });

  it('say how far reading is, and can be stopped', async () => {
    const reading = platform({ state: 'reading', done: 4, total: 122 });
    const { person, sent } = show([reading], { 'POST /platforms/5/cancel': platform() });
    expect((await screen.findByRole('progressbar', { name: 'Reading' })).getAttribute('value')).toBe('4');
    expect(screen.getByText('Reading class 5 of 122…').tagName).toBe('P');
    await person.click(screen.getByRole('button', { name: 'Stop' }));
    await expect.poll(() => sent.some(({ request }) => /cancel/.test(request))).toBe(true);
  });

  it('that could not be read say why, and what is still here', async () => {
    show([platform({ state: 'failed', problem: 'It answered 503 five times.' })]);
    expect((await screen.findByRole('alert')).textContent).toBe(
      'It answered 503 five times. What was read before is still here.',
    );
  });

  it('are disconnected only after a look at what would be forgotten', async () => {
    const { person, sent } = show([platform()], { 'DELETE /platforms/5': {} });
    await person.click(await screen.findByRole('button', { name: 'Disconnect…' }));
    const dialog = screen.getByRole('dialog', { name: 'Disconnect Quillpond?' });
    expect(dialog.textContent).toContain('Its 122 classes and every join that was decided for them are forgotten.');
    await person.click(within(dialog).getByRole('button', { name: 'Keep it' }));
    expect(sent.some(({ request }) => request.startsWith('DELETE'))).toBe(false);
    await person.click(screen.getByRole('button', { name: 'Disconnect…' }));
    await person.click(screen.getByRole('button', { name: 'Disconnect' }));
    await expect.poll(() => sent.some(({ request }) => request === 'DELETE /platforms/5')).toBe(true);
  });
});

describe('connecting a platform', () => {
  const refusal = {
    status: 422,
    title: 'Something needs correcting',
    detail: '',
    code: 'fields-wrong',
    errors: [{ field: 'address', detail: 'an address such as https://platform.example' }],
  };

  it('says beside the field what is wrong, keeps what was typed, and asks before it is dropped', async () => {
    const { person, sent } = show([], { 'POST /platforms': refusal });
    await person.click(await screen.findByRole('button', { name: 'Connect a platform…' }));
    await person.type(screen.getByLabelText('Name'), 'Quillpond');
    await person.type(screen.getByLabelText('Address'), 'quillpond');
    await person.type(screen.getByLabelText('Client id'), 'wombat');
    await person.type(screen.getByLabelText('Secret'), 'burrow{Enter}');
    await screen.findByText('an address such as https://platform.example');
    const address = screen.getByLabelText('Address');
    expect([address.getAttribute('aria-invalid'), (address as HTMLInputElement).value]).toEqual(['true', 'quillpond']);
    expect(sent.at(-1)?.body).toEqual({
      schoolId: 1,
      name: 'Quillpond',
      address: 'quillpond',
      clientId: 'wombat',
      clientSecret: 'burrow',
    });
    await person.keyboard('{Escape}');
    await person.click(screen.getByRole('button', { name: 'Discard' }));
    await person.click(screen.getByRole('button', { name: 'Connect a platform…' }));
    expect(screen.getByLabelText('Secret')).toHaveProperty('value', '');
  });
});
