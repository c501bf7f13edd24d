import { screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { FamilyValueReply, ReportCardReply } from '#contract/report-cards';
import { dayOrThrow } from '#core/calendar';
import { showRoutes } from '../../test/show-at.fixture';
import { setDistrictZone } from '../ui/format';
import { ReportCardPage } from './report-card-page';

const shown = (label: string, comment = ''): FamilyValueReply => ({
  kind: 'shown',
  label,
  percent: null,
  descriptor: null,
  comment,
});
const card = (values: readonly FamilyValueReply[]): ReportCardReply => ({
  student: { id: 7, name: 'Brine, Yara', number: 'S7' },
  school: 'Port Elowen Upper School',
  period: { id: 4, name: 'Quarter 2', startsOn: dayOrThrow('2025-11-10'), endsOn: dayOrThrow('2026-01-23') },
  sealedAt: null,
  items: [{ itemId: 1, name: 'Quarter grade', heading: 'Quarter', familyView: 'label', familyTime: 'closed' }],
  courses: values.map((value, at) => ({
    sectionId: at,
    course: `Course ${at}`,
    teacher: 'Nance, Harun',
    withdrawnOn: at === 1 ? dayOrThrow('2025-12-01') : null,
    values: [{ itemId: 1, value }],
  })),
});
const open = (given: ReportCardReply) =>
  showRoutes([{ path: 'students/:studentId/report-card', element: <ReportCardPage /> }], {
    address: 'students/7/report-card',
    answers: { 'GET /report-cards/7': given },
  });
const cells = async () => {
  const paper = await screen.findByRole('article', { name: 'Report card of Brine, Yara' });
  return within(paper)
    .getAllByRole('row')
    .slice(1)
    .map((row) => within(row).getAllByRole('cell').at(-1)!.textContent);
};

beforeEach(() => setDistrictZone('UTC'));

describe('a report card as families see it', () => {
  it('says of each grade what they see, or why nothing', async () => {
    open(
      card([
        shown('A-', 'Works well.'),
        { kind: 'later', from: 'closed', at: '2026-01-23T17:00:00Z' },
        { kind: 'later', from: 'sealed', at: null },
        { kind: 'never' },
        { kind: 'nothing posted' },
        { kind: 'shown', label: 'B', percent: '84.50', descriptor: 'Good', comment: '' },
      ]),
    );
    expect(await cells()).toEqual([
      'A−',
      'from Fri, Jan 23, 17:00',
      'from the seal on',
      'not for families',
      'nothing posted',
      '84.5 BGood',
    ]);
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe(
      'The family of Yara Brine now sees 2 of 6 grades of Quarter 2; 4 grades are not shown to them.',
    );
    expect(screen.getByText('Works well.')).toBeTruthy();
    expect(screen.getByText('withdrawn Dec 1, 2025')).toBeTruthy();
  });

  it('looks ahead to when the windows have closed', async () => {
    const { person, search } = open(card([shown('A')]));
    await person.click(await screen.findByRole('button', { name: 'Windows closed' }));
    expect(search()).toBe('?when=closed');
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toContain(
      'will see, once the windows have closed,',
    );
  });

  it('of who sits in nothing says so', async () => {
    open(card([]));
    expect(await screen.findByText('Nothing on this card')).toBeTruthy();
  });
});
