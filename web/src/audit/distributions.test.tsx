import { screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { DistributionsReply } from '#contract/audit';
import { showAt } from '../../test/show-at.fixture';
import Distributions from './distributions';

const show = (reply: DistributionsReply) =>
  showAt(<Distributions sheet={{ periodId: 4, sectionId: 32, itemId: 1 }} />, {
    answers: { 'GET /audit/distributions': reply },
  });

it('shows a picture of each section and period, and the numbers behind them', async () => {
  show({
    shift: { shift: '-3.1', low: '-4.9', high: '-1.3', own: 20, others: 22 },
    labels: ['A', 'B'],
    own: { name: 'Knots 2', grades: 20, counts: [18, 2] },
    sisters: [{ name: 'Knots 1', grades: 22, counts: [4, 18] }],
    earlier: [{ name: 'Quarter 1', grades: 20, counts: [8, 12] }],
  });
  await screen.findByRole('img', { name: 'Labels of Knots 2' });
  expect(
    screen.getByText(
      'The mean of its 20 percentages lies 3.1 points below that of the 22 of its sister sections (95 % interval from -4.9 to -1.3).',
    ),
  ).not.toBeNull();
  expect(screen.getAllByRole('img', { name: /^Labels of/ })).toHaveLength(3);
  const rows = within(screen.getByRole('table', { name: 'Grades of each label' })).getAllByRole('row');
  expect(rows.map(({ textContent }) => textContent)).toEqual([
    'Section or periodAB',
    'Knots 2182',
    'Knots 1418',
    'Quarter 1812',
  ]);
});

it('tells nothing of fewer than ten grades', async () => {
  show({ shift: null, labels: ['A'], own: null, sisters: [], earlier: [] });
  expect((await screen.findByText('Of fewer than ten grades nothing is told.')).tagName).toBe('P');
  expect(screen.queryByText(/^The mean of/)).toBeNull();
});
