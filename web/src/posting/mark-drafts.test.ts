import { beforeEach, expect, it, vi } from 'vitest';

/** A browser's storage, as Node.js 20 has none. */
const stored = new Map<string, string>();
vi.stubGlobal('window', {
  localStorage: {
    getItem: (key: string) => stored.get(key) ?? null,
    setItem: (key: string, value: string) => stored.set(key, value),
    removeItem: (key: string) => stored.delete(key),
  },
});
const { changeMarks, clearMarks, draftsOf, undoMarks, useMarkDrafts } = await import('./mark-drafts');

const draft = (percent: string) => ({
  mark: { percent, label: 'B', code: null, lastDate: null, hours: null, comment: '' },
  version: 1,
});
const marks = (sheet: string) => draftsOf(useMarkDrafts.getState(), sheet).marks;

beforeEach(() => useMarkDrafts.setState({ sheets: {} }));

it('several changes are one step, which can be taken back', () => {
  changeMarks('1/1/4', { 7: draft('80') });
  changeMarks('1/1/4', { 7: null, 8: draft('81'), 9: draft('82') });
  expect(Object.keys(marks('1/1/4'))).toEqual(['8', '9']);
  undoMarks('1/1/4');
  expect(marks('1/1/4')).toEqual({ 7: draft('80') });
  undoMarks('1/1/4');
  undoMarks('1/1/4');
  expect(marks('1/1/4')).toEqual({});
});

it('the drafts of one sheet are nothing to another, and are kept for the next visit', () => {
  changeMarks('1/1/4', { 7: draft('80') });
  changeMarks('2/1/4', { 7: draft('90') });
  clearMarks('1/1/4');
  expect([marks('1/1/4'), marks('2/1/4')]).toEqual([{}, { 7: draft('90') }]);
  expect(stored.get('wombat-mark-drafts')).toContain('"90"');
});
