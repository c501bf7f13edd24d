import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { LogCheckReply, LogEntryReply, LogReply } from '#contract/changes';
import type { Problem } from '#contract/problems';
import { showAt, type Answers } from '../../test/show-at.fixture';
import { LogPage } from './log-page';

const entry = (id: number, more: Partial<LogEntryReply> = {}): LogEntryReply => ({
  id,
  at: '2026-01-21T10:42:00.000Z',
  actor: 'Morwenna Oake',
  action: 'save the codes',
  thing: 'codes district',
  called: 'the codes',
  fields: [
    { field: 'INC, meaning', before: 'Incomplete', after: 'Not complete' },
    { field: 'EXM, meaning', before: 'Exempt', after: '' },
  ],
  change: id,
  undoes: null,
  why: null,
  hash: 'ab12',
  ...more,
});
const log = (entries: LogEntryReply[], hasMore = false): LogReply => ({
  entries,
  hasMore,
  people: [{ id: 3, name: 'Oake, Morwenna' }],
  kinds: [{ kind: 'codes', called: 'the codes' }],
});
const whole: LogCheckReply = {
  state: 'whole',
  checked: 2,
  entries: 2,
  faultAt: null,
  checkedAt: '2026-01-21T11:00:00.000Z',
};
const show = (answers: Answers, address = 'log') =>
  showAt(<LogPage />, {
    address,
    answers: { 'GET /log/check': whole, 'GET /log': log([entry(2), entry(1)]), ...answers },
  });
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;

describe('the log', () => {
  it('says that it holds together, and each entry with its first fact before and after', async () => {
    show({});
    const rows = await screen.findAllByRole('row');
    expect(headline()).toMatch(/^The log’s 2 entries were checked on .*: nothing was altered, removed or put in\.$/);
    expect(rows).toHaveLength(3);
    expect(within(rows[1]!).getAllByRole('cell').at(-1)!.textContent).toBe(
      'INC, meaning Incomplete Not complete, and 1 more fact',
    );
  });

  it.each<[LogCheckReply, RegExp]>([
    [{ ...whole, state: 'broken', checked: 1, faultAt: 2 }, /it was tampered with\.$/],
    [{ ...whole, state: 'checking', checked: 1 }, /^The chain of the log is being checked: 1 of 2 entries\.$/],
    [{ ...whole, state: 'failed' }, /could not be checked/],
  ])('says so where it does not, and how far a check is: %#', async (check, says) => {
    show({ 'GET /log/check': check });
    await screen.findAllByRole('row');
    expect(headline()).toMatch(says);
    expect(screen.queryByText(/Entry 2 does not fit/) !== null).toBe(check.state === 'broken');
  });

  it('is narrowed by what stands in the address, and the file is narrowed alike', async () => {
    const { person, sent, search } = show({}, 'log?who=3');
    await screen.findAllByRole('row');
    await person.selectOptions(screen.getByRole('combobox', { name: 'Kind of thing' }), 'codes');
    expect(search()).toBe('?who=3&thing=codes');
    expect(screen.getByRole<HTMLAnchorElement>('link', { name: 'CSV of these entries' }).getAttribute('href')).toBe(
      '/api/log/export?thing=codes&personId=3',
    );
    expect(sent.filter(({ request }) => request === 'GET /log').length).toBeGreaterThan(1);
  });

  it('is checked anew on demand', async () => {
    const { person, sent } = show({ 'POST /log/check': { ...whole, state: 'checking', checked: 0 } });
    await person.click(await screen.findByRole('button', { name: 'Check the chain' }));
    expect(sent.map(({ request }) => request)).toContain('POST /log/check');
    expect(await screen.findByText(/being checked/)).toBeTruthy();
  });

  it('with nothing in it, or nothing like what is looked for, says what belongs there', async () => {
    const { unmount } = show({ 'GET /log': log([]) });
    expect(await screen.findByText('Nothing was changed yet')).toBeTruthy();
    unmount();
    const { person, search } = show({ 'GET /log': log([]) }, 'log?text=xyz');
    await person.click(await screen.findByRole('button', { name: 'Show all entries' }));
    expect(search()).toBe('');
  });
});

describe('a page whose data cannot be read', () => {
  const refused = (status: number, detail: string): Problem => ({
    type: 'urn:wombat:problem:x',
    code: 'not-found',
    title: 'x',
    status,
    detail,
    errors: [],
  });

  it('is a skeleton until it is there', () => {
    show({ 'GET /log': () => new Promise(() => undefined) });
    expect(screen.getByRole('status', { name: 'Loading' })).toBeTruthy();
  });

  it('says what happened and tries again', async () => {
    let isDown = true;
    const { person } = show({
      'GET /log': () => (isDown ? refused(500, 'The server failed; its log says why.') : log([entry(1)])),
    });
    expect((await screen.findByRole('alert')).textContent).toContain('The server failed; its log says why.');
    isDown = false;
    await person.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByRole('grid', { name: 'Entries of the log' })).toBeTruthy();
  });

  it.each([
    [404, 'There is nothing at this address.'],
    [403, 'This page is not for your role.'],
  ])('is words and a way on for %i', async (status, says) => {
    show({ 'GET /log': refused(status, 'no') });
    expect(await screen.findByText(says)).toBeTruthy();
    expect(screen.getByRole<HTMLAnchorElement>('link', { name: 'Go to your first page' }).getAttribute('href')).toBe(
      '/school/1/period/4/',
    );
  });
});
