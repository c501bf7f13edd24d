import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ReadinessReply } from '#contract/transcripts';
import { showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { SealPage } from './seal-page';

const audit = { at: '2026-01-21T09:00:00Z', by: 'Morwenna Hale', rules: 6 };
const codes = ['window', 'posted', 'audited', 'unchanged', 'settled', 'certified'] as const;
const readiness = (
  over: Partial<ReadinessReply> = {},
  open: Partial<Record<(typeof codes)[number], number>> = {},
): ReadinessReply => ({
  steps: codes.map((code) => ({ code, isDone: !(code in open), isNeeded: code !== 'window', count: open[code] ?? 0 })),
  isReady: Object.keys(open).every((code) => code === 'window'),
  expected: 60,
  posted: 60,
  students: 20,
  entries: 60,
  audit,
  seal: null,
  ...over,
});
const show = (reply: ReadinessReply, answers: Answers = {}) =>
  showAt(<SealPage />, {
    answers: { 'GET /seals/readiness': reply, 'GET /schools/1/term-line': termLineOf(), ...answers },
  });
const headline = async () => (await screen.findByRole('heading', { level: 1 })).textContent;
const steps = () =>
  within(screen.getByRole('region', { name: 'Before the seal' }))
    .getAllByRole('listitem')
    .map((item) => within(item).queryByRole('link')?.textContent ?? 'done');

describe('the seal', () => {
  it('says how many conditions are not met, and leads to where each is', async () => {
    show(readiness({ posted: 58, audit: null }, { posted: 2, audited: 0, unchanged: 0, settled: 0, certified: 0 }));
    expect(await headline()).toBe('Quarter 2 cannot be sealed yet: 5 conditions of 5 are not met.');
    expect(steps()).toEqual([
      'done',
      'Fill the blanks',
      'Run the audit',
      'Audit again',
      'Resolve findings',
      'Issue a certificate',
    ]);
    expect(screen.getByText('58 of 60; 2 blanks left').tagName).toBe('P');
    expect(screen.getByRole('button', { name: 'Seal Quarter 2…' })).toHaveProperty('disabled', true);
  });

  it('speaks of one condition as of one', async () => {
    show(readiness({}, { settled: 1 }));
    expect(await headline()).toBe('Quarter 2 cannot be sealed yet: 1 condition of 5 is not met.');
    expect(screen.getByText('1 finding to resolve.').tagName).toBe('P');
  });

  it('rests on certificates of courses where they leave out none', async () => {
    const { steps: all, ...rest } = readiness();
    const steps = all.map((step) => (step.code === 'certified' ? { ...step, count: 2 } : step));
    show({ ...rest, steps });
    expect(await screen.findByText('2 certificates of courses together leave out none.')).not.toBeNull();
  });

  it('is ready with an open window, asks once more, and is struck', async () => {
    const sealed = readiness({ seal: { at: '2026-01-21T11:00:00Z', by: 'Morwenna Hale', entries: 60 } });
    let isSealed = false;
    const { person, sent } = show(sealed, {
      'GET /seals/readiness': () => (isSealed ? sealed : readiness({}, { window: 0 })),
      'POST /seals': () => {
        isSealed = true;
        return sealed;
      },
    });
    expect(await headline()).toBe('Quarter 2 is ready to be sealed: 60 entries for 20 students.');
    await person.click(screen.getByRole('button', { name: 'Seal Quarter 2…' }));
    const dialog = screen.getByRole('dialog', { name: 'Seal Quarter 2?' });
    expect(within(dialog).getByText(/^60 transcript entries of 20 students would be written/).tagName).toBe('P');
    await person.keyboard('{Escape}');
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(sent.some(({ request }) => request === 'POST /seals')).toBe(false);
    await person.click(screen.getByRole('button', { name: 'Seal Quarter 2…' }));
    await person.click(screen.getByRole('button', { name: 'Seal Quarter 2' }));
    await expect.poll(() => sent.find(({ request }) => request === 'POST /seals')?.body).toEqual({ periodId: 4 });
    await expect
      .poll(headline)
      .toMatch(/^Quarter 2 was sealed .* by Morwenna Hale: 60 entries are on the transcripts\.$/);
    expect(screen.queryByRole('button', { name: /^Seal/ })).toBeNull();
  });

  it('that is refused says why and stays as it was', async () => {
    const refusal = { status: 409, title: 'The audit is out of date', detail: 'Run it again before sealing.', code: 'audit-outdated', errors: [] }; // prettier-ignore
    const { person } = show(readiness(), { 'POST /seals': refusal });
    await person.click(await screen.findByRole('button', { name: 'Seal Quarter 2…' }));
    await person.click(screen.getByRole('button', { name: 'Seal Quarter 2' }));
    expect((await screen.findByText('Run it again before sealing.')).textContent).toBe('Run it again before sealing.');
    expect(await headline()).toMatch(/is ready to be sealed/);
  });
});
