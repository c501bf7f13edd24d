import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { StudentRowReply } from '#contract/transcripts';
import { showAt } from '../../test/show-at.fixture';
import { StudentsPage } from './students-page';

const row = (id: number, name: string, more: Partial<StudentRowReply> = {}): StudentRowReply => ({
  id,
  name,
  studentNumber: `S${id}`,
  yearGroup: '9',
  creditsAttempted: '3.5',
  creditsEarned: '3.25',
  gpa: '3.125',
  blanks: 0,
  ...more,
});
const termLine = {
  school: { id: 1, name: 'Port Elowen Upper School', shortName: 'Upper School' },
  now: '2026-01-21T10:00:00Z',
  suggestedPeriodId: 4,
  periods: [
    {
      id: 4,
      parentId: 1,
      kind: 'quarter',
      name: 'Quarter 2',
      startsOn: '2025-11-10',
      endsOn: '2026-01-23',
      posting: null,
    },
  ],
};
const show = (rows: StudentRowReply[], address = 'students') =>
  showAt(<StudentsPage />, {
    address,
    answers: { 'GET /student-list': rows, 'GET /schools/1/term-line': termLine },
  });

describe('the list of students', () => {
  it('has credits on one point, the GPA, and who lacks a grade now', async () => {
    show([row(1, 'Brine, Yara'), row(2, 'Carrow, Ennis', { gpa: null, creditsEarned: '12', blanks: 3 })]);
    const rows = await screen.findAllByRole('row');
    const cells = (at: number) =>
      within(rows[at]!)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent);
    expect([cells(1), cells(2)]).toEqual([
      ['Brine, Yara', 'S1', '9', '3.25 of 3.50', '3.125', '–'],
      ['Carrow, Ennis', 'S2', '9', '12.00 of 3.50', '–', '3'],
    ]);
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
      '2 students of Upper School; 1 student has blank grades in Quarter 2. Choose one to see the transcript.',
    );
  });

  it('is sorted by what lacks, and the order stands in the address', async () => {
    const { person, search } = show([row(1, 'Brine, Yara'), row(2, 'Carrow, Ennis', { blanks: 3 })]);
    await person.click(await screen.findByRole('button', { name: 'Blank now' }));
    expect(search()).toMatch(/^\?sort=/);
  });

  it('says so where nobody matches', async () => {
    show([], 'students?text=xyz');
    expect(await screen.findByText('No student matches')).toBeTruthy();
  });
});
