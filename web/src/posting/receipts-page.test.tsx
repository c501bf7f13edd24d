import { screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { DayReceiptsReply } from '#contract/posting';
import { dayOrThrow } from '#core/calendar';
import { showAt } from '../../test/show-at.fixture';
import { setDistrictZone } from '../ui/format';
import { blankMark } from '../../test/sheet.fixture';
import { ReceiptsPage } from './receipts-page';

const day = dayOrThrow('2026-01-21');
const reply: DayReceiptsReply = {
  day,
  receipts: [
    {
      id: 2,
      savedBy: 'Morwenna Oake',
      savedAt: '2026-01-21T11:05:00Z',
      onBehalfOf: 'Harun Nance',
      sectionId: 13,
      section: 'Tidal Ecology 1',
      itemId: 1,
      item: 'Quarter grade',
      periodId: 4,
      period: 'Quarter 2',
      changes: [
        {
          student: 'Brine, Yara',
          before: { ...blankMark, percent: '81', label: 'B−' },
          after: { ...blankMark, percent: '84.5', label: 'B', overrideReason: 'Late work', comment: 'Well done' },
        },
        { student: 'Carrow, Hale', before: null, after: { ...blankMark, code: 'INC', lastDate: '2026-01-16' } },
      ],
    },
  ],
};
const open = (given: DayReceiptsReply) =>
  showAt(<ReceiptsPage />, { address: 'receipts', answers: { 'GET /receipts': given } });

beforeEach(() => setDistrictZone('UTC'));

describe('the receipts of a day', () => {
  it('say who changed which grades, with what was and what is in columns', async () => {
    open(reply);
    const headline = await screen.findByRole('heading', { level: 1 });
    expect(headline.textContent).toBe(
      'On Jan 21, 2026 2 grades were changed in 1 save, 1 of them on behalf of a teacher.',
    );
    const receipt = screen.getByRole('region', { name: 'Tidal Ecology 1, 11:05' });
    expect(receipt.textContent).toContain('Morwenna Oake on behalf of Harun Nance');
    const rows = within(receipt).getAllByRole('row').slice(1);
    expect(
      rows.map((row) =>
        within(row)
          .getAllByRole('cell')
          .map(({ textContent }) => textContent),
      ),
    ).toEqual([
      ['Brine, Yara', '81 % B−', '84.5 % B', 'Late work · Well done'],
      ['Carrow, Hale', '–', 'INC', 'last date Jan 16, 2026'],
    ]);
  });

  it('lead to the days beside it, and say what a day without any means', async () => {
    const { person, search } = open({ day, receipts: [] });
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe(
      'Nothing was posted by you or on your behalf on Jan 21, 2026.',
    );
    await person.click(screen.getByRole('button', { name: '◂ Day before' }));
    expect(search()).toBe('?day=2026-01-20');
  });
});
