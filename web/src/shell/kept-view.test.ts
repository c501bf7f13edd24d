// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import '../../test/browser.fixture';
import { usualView } from '#core/people';
import { changeOwnView, useOwnView } from '../ui/own-view';
import { borrowOwnView, followOwnView } from './kept-view';

const sent: unknown[] = [];

beforeEach(() => {
  sent.length = 0;
  vi.useFakeTimers();
  vi.stubGlobal('fetch', (_url: string, { body }: RequestInit) => {
    sent.push(JSON.parse(body as string));
    return Promise.resolve(Response.json({}));
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
