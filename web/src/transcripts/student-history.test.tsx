import { screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import { showAt } from '../../test/show-at.fixture';
import { StudentHistory } from './student-history';

const answers = {
  'GET /changes': [],
  'GET /students/7/readings': [
    { id: 3, at: '2026-01-20T09:05:00Z', actor: 'Sunniva Holloway', part: 'transcript' },
    { id: 2, at: '2026-01-19T08:00:00Z', actor: 'Morwenna Oake', part: 'history' },
  ],
};

it('the history of a student tells who read the record, when and which part, and gives it as a file', async () => {
  showAt(<StudentHistory studentId={7} showsReaders />, { answers });
  const readers = screen.getByRole('region', { name: 'Read by' });
  const lines = await within(readers).findAllByRole('listitem');
  expect(lines.map(({ textContent }) => textContent)).toEqual([
    expect.stringMatching(/^Sunniva Hollowaytranscript.*Jan 20/),
    expect.stringMatching(/^Morwenna Oakehistory.*Jan 19/),
  ]);
  expect(within(readers).getByRole('link', { name: 'CSV' }).getAttribute('href')).toBe(
    '/api/students/7/readings/export?type=csv',
  );
});

it('the history of a student shows no readers to whoever may not know them, and asks for none', async () => {
  const { sent } = showAt(<StudentHistory studentId={7} showsReaders={false} />, { answers });
  expect(await screen.findByText('Nothing was changed here since Wombat keeps a history.')).toBeTruthy();
  expect(screen.queryByText('Read by')).toBeNull();
  expect(sent.map(({ request }) => request)).toEqual(['GET /changes']);
});
