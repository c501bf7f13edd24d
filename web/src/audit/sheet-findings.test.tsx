import { screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { SheetFindingReply, SheetFindingsReply } from '#contract/audit';
import { showAt } from '../../test/show-at.fixture';
import { countOnSheet, SheetFindings } from './sheet-findings';

const found = (enrollmentId: number | null, more: Partial<SheetFindingReply> = {}): SheetFindingReply => ({
  key: `rule:${enrollmentId}`,
  severity: 'warns',
  enrollmentId,
  itemId: 1,
  sentence: `Something is odd with ${enrollmentId ?? 'the sheet'}.`,
  toldAt: null,
  since: null,
  ...more,
});
const at = '2026-01-21T09:00:00Z';
const onStudent = vi.fn<(enrollmentId: number, itemId: number | null) => void>();
const show = (reply: SheetFindingsReply, items: readonly (readonly [number, string])[] = [[1, 'Quarter grade']]) =>
  showAt(
    <SheetFindings
      periodId={4}
      sectionId={31}
      items={new Map(items)}
      nameOf={new Map([[8, 'Fenn, Nuala']])}
      onStudent={onStudent}
    />,
    {
      answers: { 'GET /sheet-findings': reply },
    },
  );
const title = () => screen.findByText(/^The audit of/);

describe('what an audit found on a sheet', () => {
  it('is told to whoever posts there, with what they were told and what is saved since', async () => {
    const { person } = show({
      at,
      findings: [
        found(null, { severity: 'blocks' }),
        found(7, { toldAt: at }),
        found(8, { toldAt: at, since: 'saved' }),
        found(9, { since: 'gone' }),
        found(10, { since: 'still' }),
      ],
    });
    expect((await title()).textContent).toMatch(/^The audit of .* found 5 things here; 1 set right since$/);
    expect(screen.getByText('Something is odd with the sheet.').tagName).toBe('SPAN');
    expect(screen.getByText(/^You were told on/).textContent).toBe(' You were told on Wed, Jan 21, 09:00.');
    expect(screen.getByText('Saved since; the next audit looks again.')).not.toBeNull();
    expect(screen.getByText('Set right since.').closest('li')!.textContent).toContain('odd with 9');
    expect(screen.getByText('Saved since, and still so.').closest('li')!.textContent).toContain('odd with 10');
    expect(screen.getAllByRole('listitem')).toHaveLength(5);
    expect((await title()).closest('details')!.open).toBe(true);
    await person.click(screen.getByRole('button', { name: /^Fenn, Nuala.*odd with 8\.$/ }));
    expect(onStudent.mock.calls).toEqual([[8, 1]]);
  });

  it('is of its own items, and names which where there are several', async () => {
    const findings = [found(8), found(9, { itemId: 2 }), found(10, { itemId: 3 }), found(null, { itemId: 2 })];
    show({ at, findings: [...findings, found(null, { key: 'all', itemId: null })] }, [
      [1, 'Knowing'],
      [2, 'Doing'],
    ]);
    expect((await title()).textContent).toMatch(/found 4 things here$/);
    expect(screen.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
      'Fenn, Nuala, Knowing: Something is odd with 8.',
      'somebody who is no longer here, Doing: Something is odd with 9.',
      'Doing: Something is odd with the sheet.',
      'Something is odd with the sheet.',
    ]);
  });

  it('is one line while nobody was told of it, or all of that is saved since', async () => {
    show({ at, findings: [found(7), found(8, { toldAt: at, since: 'saved' })] });
    expect((await title()).closest('details')!.open).toBe(false);
  });

  it.each([
    ['was never audited', { at: null, findings: [] }],
    ['has nothing found in it', { at, findings: [] }],
  ])('is no word where the period %s', async (_what, reply) => {
    const { sent } = show(reply);
    await expect.poll(() => sent.length).toBe(1);
    expect(screen.queryByText(/^The audit of/)).toBeNull();
  });
});

it('a sheet has the findings of its item, and those of its section whatever it reports', () => {
  const counts = [
    { sectionId: 31, itemId: 1, findings: 2 },
    { sectionId: 31, itemId: 2, findings: 5 },
    { sectionId: 31, itemId: null, findings: 1 },
    { sectionId: 32, itemId: 1, findings: 7 },
  ];
  expect([countOnSheet(counts, 31, 1), countOnSheet(counts, 31, 2), countOnSheet(counts, 33, 1)]).toEqual([3, 6, 0]);
});
