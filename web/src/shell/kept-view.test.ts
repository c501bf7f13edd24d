// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import '../../test/browser.fixture';
import { usualView } from '#core/people';
import { changeOwnView, useOwnView } from '../ui/own-view';
import { borrowOwnView, followOwnView, keepViewWhenLeft } from './kept-view';

const sent: unknown[] = [];
let answer: () => Promise<Response>;
keepViewWhenLeft();

beforeEach(() => {
  borrowOwnView(usualView);
  sent.length = 0;
  answer = () => Promise.resolve(Response.json({}));
  vi.useFakeTimers();
  vi.stubGlobal('fetch', (_url: string, { body }: RequestInit) => {
    sent.push(JSON.parse(body as string));
    return answer();
  });
});
afterEach(() => vi.useRealTimers());

const layout = (width: number) => ({ hidden: [], order: [], widths: { name: width } });

it('a column that is dragged wider is kept once, when it rests, and those of other grids with it', () => {
  followOwnView(usualView);
  for (const width of [90, 95, 120]) changeOwnView({ columns: { '/log all': layout(width) } });
  changeOwnView({ columns: { '/people all': null } });
  changeOwnView({ letterKeys: false });
  expect([sent, useOwnView.getState().columns['/log all']]).toEqual([[], layout(120)]);
  vi.advanceTimersByTime(1000);
  expect(sent).toEqual([{ columns: { '/log all': layout(120), '/people all': null }, letterKeys: false }]);
});

it('what was changed a moment ago stays as the session is looked at anew', () => {
  followOwnView(usualView);
  changeOwnView({ density: 'roomy' });
  followOwnView(usualView);
  expect(useOwnView.getState().density).toBe('roomy');
  vi.advanceTimersByTime(1000);
  expect(sent).toEqual([{ density: 'roomy' }]);
});

it('the view of somebody else is changed for the eye alone', () => {
  borrowOwnView({ ...usualView, density: 'roomy' });
  changeOwnView({ density: 'compact' });
  vi.advanceTimersByTime(1000);
  expect([useOwnView.getState().density, sent]).toEqual(['compact', []]);
});

it('what is on its way stands, whatever an earlier answer says, and what is changed meanwhile goes after it', async () => {
  let arrive: (response: Response) => void = () => undefined;
  answer = () => new Promise((resolve) => (arrive = resolve));
  followOwnView(usualView);
  changeOwnView({ density: 'roomy', letterKeys: false });
  vi.advanceTimersByTime(1000);
  followOwnView(usualView);
  changeOwnView({ letterKeys: true });
  vi.advanceTimersByTime(1000);
  const { density, letterKeys } = useOwnView.getState();
  expect([density, letterKeys, sent]).toEqual(['roomy', true, [{ density: 'roomy', letterKeys: false }]]);
  arrive(Response.json({}));
  await vi.advanceTimersByTimeAsync(1000);
  expect(sent).toEqual([{ density: 'roomy', letterKeys: false }, { letterKeys: true }]);
});

it('is kept once the server is there again, where it was away or had to be signed in to', async () => {
  followOwnView(usualView);
  answer = () => Promise.reject(new TypeError('no server'));
  changeOwnView({ density: 'roomy' });
  await vi.advanceTimersByTimeAsync(1000);
  changeOwnView({ letterKeys: false });
  answer = () => Promise.resolve(Response.json({ status: 401, detail: '', errors: [] }, { status: 401 }));
  await vi.advanceTimersByTimeAsync(1000);
  answer = () => Promise.resolve(Response.json({}));
  followOwnView(usualView);
  await vi.advanceTimersByTimeAsync(1000);
  const both = { density: 'roomy', letterKeys: false };
  expect([sent, useOwnView.getState()]).toEqual([[{ density: 'roomy' }, both, both], { ...usualView, ...both }]);
});

it('goes to the server as the tab is left, and to nobody else’s once one signed out', () => {
  followOwnView(usualView);
  changeOwnView({ density: 'roomy' });
  vi.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden');
  document.dispatchEvent(new Event('visibilitychange'));
  expect(sent).toEqual([{ density: 'roomy' }]);
  changeOwnView({ letterKeys: false });
  borrowOwnView(usualView);
  vi.advanceTimersByTime(1000);
  expect(sent).toHaveLength(1);
});
