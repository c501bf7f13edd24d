import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { usualView } from '#core/people';
import type { SaveStandardsRequest, SheetReply, SheetRowReply } from '#contract/posting';
import { dayOrThrow } from '#core/calendar';
import { made, showAt } from '../../test/show-at.fixture';
import { band, computedFrom, sheetOf, sheetRow } from '../../test/sheet.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { discardDrafts } from '../shell/kept-drafts';
import { marksOf } from './mark-drafts';
import { StandardsSheet } from './standards-sheet';

const window = {
  state: 'open',
  opensAt: '2026-01-19T08:00:00Z',
  closesAt: '2026-01-23T17:00:00Z',
  graceUntil: null,
  latePosters: 'registrars',
} as const;
const rows = [
  sheetRow(1, { computed: computedFrom('3.25') }),
  sheetRow(2, { withdrawnOn: dayOrThrow('2025-12-01') }),
  sheetRow(3),
];
const standard = (itemId: number, itemName: string, more: Partial<SheetReply> = {}): SheetReply =>
  sheetOf(rows, {
    itemId,
    itemName,
    itemKind: 'standard',
    window,
    highestLevel: '4',
    digits: 0,
    scales: [{ version: 1, bands: [band('Exceeds', '4'), band('Meets', '3'), band('Beginning', '0')] }],
    commentRule: 'none',
    ...more,
  });
const sheets = [
  standard(1, 'Knowing', { commentRule: 'optional' }),
  standard(2, 'Doing'),
  standard(3, 'How often', { highestLevel: null, scales: [{ version: 1, bands: [band('O', '1'), band('S', '0')] }] }),
];

function open(shown: readonly SheetReply[] = sheets) {
  const view = showAt(<StandardsSheet sheets={shown} sectionId={1} periodId={4} />, {
    address: 'standards/1',
    answers: {
      'GET /session': {
        person: { personId: 7, grants: [{ role: 'teacher', schoolId: 1 }] },
        view: usualView,
        timeZone: 'UTC',
        csrfToken: '',
      },
      'GET /schools/1/term-line': termLineOf(),
      'PUT /standards-sheets/1/4': (body: unknown) =>
        made(9, {
          sheets: (body as SaveStandardsRequest).sheets.map(({ changes }) => ({
            receipt: null,
            rows: changes.map(({ enrollmentId, version, ...mark }): SheetRowReply => ({
              ...sheetRow(enrollmentId),
              mark,
              version: version + 1,
            })),
          })),
        }),
    },
  });
  const grid = screen.getByRole('grid', { name: 'Standards sheet' });
  grid.focus();
  return { ...view, grid };
}
const textsOf = (student: number) =>
  within(screen.getByRole('row', { name: new RegExp(`^Student ${student}`) }))
    .getAllByRole('gridcell')
    .map(({ textContent }) => textContent);

beforeEach(() => discardDrafts());

describe('standards by keyboard', () => {
  it('a figure fills a level at once and goes on to the next student who is graded', async () => {
    const { person } = open();
    await person.keyboard('43{ArrowRight}{ArrowUp}{ArrowUp}23');
    expect(textsOf(1).slice(0, 2)).toEqual(['4Exceeds3.25', '2Beginning3.25']);
    expect(textsOf(3).slice(0, 2)).toEqual(['3Meets', '3Meets']);
    expect(textsOf(2)[0]).toBe('');
    expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('4 of 6 levels done, 4 unsaved');
  });

  it('a figure above the highest level begins to type, and is refused with the reason', async () => {
    const { person } = open();
    await person.keyboard('7{Enter}');
    expect(textsOf(1)[0]).toContain('7');
    expect(screen.getByRole('button', { name: /^Save/ })).toHaveProperty('disabled', true);
  });

  it('a level between two, a label, and a comment are typed', async () => {
    const { person } = open();
    await person.keyboard('{Enter}3.5{Enter}{ArrowUp}{ArrowUp}{ArrowRight}{ArrowRight}s{Enter}');
    expect(textsOf(1)[2]).toBe('S3.25');
    await person.keyboard('{End}Works well{Enter}');
    expect(textsOf(3)[3]).toBe('Works well');
    expect(marksOf('1/1/4')[3]!.mark.comment).toBe('Works well');
  });

  it('a block from a spreadsheet lands student by student, and undo takes all of it back at once', async () => {
    const { grid, person } = open();
    fireEvent.paste(grid, { clipboardData: { getData: () => '4\t3\tO\n9\t9\tX\n2\t1\tS' } });
    expect(textsOf(1).slice(0, 3)).toEqual(['4Exceeds3.25', '3Meets3.25', 'O3.25']);
    expect(textsOf(3).slice(0, 3)).toEqual(['2Beginning', '1Beginning', 'S']);
    await person.keyboard('{Control>}z{/Control}');
    expect(textsOf(1).slice(0, 3)).toEqual(['3.25', '3.25', '3.25']);
    expect(textsOf(3).slice(0, 3)).toEqual(['', '', '']);
  });
});

it('all standards are saved in one request, and what was typed meanwhile stays', async () => {
  const { person, sent } = open();
  await person.keyboard('4{ArrowUp}{ArrowUp}{ArrowRight}3{Control>}s{/Control}');
  const saves = () => sent.filter(({ request }) => request === 'PUT /standards-sheets/1/4');
  await waitFor(() => expect(saves()).toHaveLength(1));
  const { sheets: saved } = saves()[0]!.body as SaveStandardsRequest;
  expect(
    saved.map(({ itemId, changes }) => [itemId, changes.map(({ enrollmentId, percent }) => [enrollmentId, percent])]),
  ).toEqual([
    [1, [[1, '4']]],
    [2, [[1, '3']]],
  ]);
  await waitFor(() => expect([marksOf('1/1/4'), marksOf('1/2/4')]).toEqual([{}, {}]));
});

it('what is computed fills all blanks at once', async () => {
  const { person } = open();
  await person.click(screen.getByRole('button', { name: 'Use computed for 3 blanks' }));
  expect(textsOf(1).slice(0, 2)).toEqual(['3Meets3.25', '3Meets3.25']);
});

it('a sealed period takes nothing', async () => {
  const { person } = open([standard(1, 'Knowing', { sealedAt: '2026-02-01T10:00:00Z' })]);
  await person.keyboard('4');
  expect(textsOf(1)[0]).toBe('3.25');
  expect(marksOf('1/1/4')).toEqual({});
});
