import { act, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { GpaPolicyReply, SaveGpaPolicyRequest } from '#contract/transcripts';
import { showAt } from '../../test/show-at.fixture';
import { GpaDesk } from './gpa-desk';
import { gpaDraftKey, gpaDrafts } from './gpa-draft';

const saved: GpaPolicyReply = {
  policy: {
    additions: { regular: '0', honours: '0.5', college: '1' },
    leastAddedPoints: '1.7',
    mostAddedCredits: null,
    repeats: 'all',
    digits: 3,
    rounding: 'halfUp',
  },
  revision: 'r1',
  coursesCounted: 1,
  coursesNotCounted: 24,
  items: [{ school: 'Upper School', name: 'Quarter grade' }],
  codes: [],
};
const show = async (put: (body: unknown) => object = () => saved, get: () => object = () => saved) => {
  const view = showAt(<GpaDesk viewSwitch={null} />, { answers: { 'GET /gpa-policy': get, 'PUT /gpa-policy': put } });
  await screen.findByText(/counts in it/);
  return view;
};
const honours = () => screen.getByLabelText<HTMLInputElement>('Honours courses');
const button = (name: RegExp) => screen.getByRole<HTMLButtonElement>('button', { name });

afterEach(() => act(() => gpaDrafts.discard(gpaDraftKey)));

describe('the settings of the GPA', () => {
  it('change the small transcript beside them as they are typed', async () => {
    const { person } = await show();
    expect(screen.getByText('2.875')).toBeTruthy();
    await person.clear(honours());
    await person.type(honours(), '1,5');
    expect(screen.getByText('3.125')).toBeTruthy();
    await person.selectOptions(screen.getByLabelText('Decimals'), '1');
    expect(screen.getByText('3.1')).toBeTruthy();
    expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('at 1 decimal;');
  });

  it('say beside the field what is wrong with a number, and are not saved until it is right', async () => {
    const { person } = await show();
    await person.clear(honours());
    await person.type(honours(), '0.555');
    expect(screen.getByText('a number from 0 with at most 2 decimals, such as 0.5')).toBeTruthy();
    expect([honours().getAttribute('aria-invalid'), button(/Save the GPA settings/).disabled]).toEqual(['true', true]);
    await person.click(button(/Undo last step/));
    expect(button(/Save the GPA settings/).disabled).toBe(false);
  });

  it('are saved on what was looked at; what is typed meanwhile stays and is saved by the next', async () => {
    let answer: (reply: GpaPolicyReply) => void = () => undefined;
    const waiting = new Promise<GpaPolicyReply>((resolve) => (answer = resolve));
    const { person, sent } = await show();
    await person.clear(honours());
    await person.type(honours(), '1');
    const fetched = globalThis.fetch;
    const slow: typeof fetch = async (url, init) => {
      const response = await fetched(url, init);
      return init?.method === 'PUT' ? Response.json(await waiting) : response;
    };
    globalThis.fetch = slow;
    await person.click(button(/Save the GPA settings/));
    await person.clear(screen.getByLabelText('College-level courses'));
    await person.type(screen.getByLabelText('College-level courses'), '2');
    const body = sent.find(({ request }) => request === 'PUT /gpa-policy')!.body as SaveGpaPolicyRequest;
    expect([body.additions, body.revision]).toEqual([{ regular: '0', honours: '1', college: '1' }, 'r1']);
    answer({ ...saved, policy: { ...saved.policy, additions: body.additions }, revision: 'r2' });
    await screen.findByText('The GPA settings are saved.');
    expect([honours().value, screen.getByLabelText<HTMLInputElement>('College-level courses').value]).toEqual([
      '1',
      '2',
    ]);
  });

  it('whose answer was lost on the way are no draft any more once they are read as saved', async () => {
    let now = saved;
    const { person, unmount } = await show(undefined, () => now);
    await person.clear(honours());
    await person.type(honours(), '1');
    unmount();
    const { digits, ...rest } = saved.policy;
    const additions = { college: '1', honours: '1', regular: '0' };
    now = { ...saved, policy: { digits, ...rest, additions }, revision: 'r2' };
    await show(undefined, () => now);
    expect(screen.queryByText('Someone else saved the GPA settings')).toBeNull();
    expect([honours().value, button(/Discard/).disabled]).toEqual(['1', true]);
  });

  it('that someone else saved first are told of, and what was typed is kept until it is decided', async () => {
    let now = saved;
    const { person, unmount } = await show(undefined, () => now);
    await person.clear(honours());
    await person.type(honours(), '1');
    unmount();
    now = { ...saved, revision: 'r2' };
    const again = await show(undefined, () => now);
    expect(await screen.findByText('Someone else saved the GPA settings')).toBeTruthy();
    expect([honours().value, button(/Save the GPA settings/).disabled]).toEqual(['1', true]);
    await again.person.click(button(/Go on from what is saved/));
    await waitFor(() => expect(button(/Save the GPA settings/).disabled).toBe(false));
  });
});
