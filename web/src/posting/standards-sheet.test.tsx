import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { usualView } from '#core/people';
import type { PostingRequestReply, SaveStandardsRequest, SheetReply, SheetRowReply } from '#contract/posting';
import { dayOrThrow } from '#core/calendar';
import { made, showAt } from '../../test/show-at.fixture';
import { band, blankMark, computedFrom, sheetOf, sheetRow } from '../../test/sheet.fixture';
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
const noFindings = { at: null, findings: [] };
const sheets = [
  standard(1, 'Knowing', { commentRule: 'optional' }),
  standard(2, 'Doing'),
  standard(3, 'How often', { highestLevel: null, scales: [{ version: 1, bands: [band('O', '1'), band('S', '0')] }] }),
];

function open(
  shown: readonly SheetReply[] = sheets,
  role: 'teacher' | 'registrar' = 'teacher',
  found: object = noFindings,
) {
  const view = showAt(<StandardsSheet sheets={shown} sectionId={1} periodId={4} />, {
    address: 'standards/1',
    answers: {
      'GET /session': {
        person: { personId: 7, grants: [{ role, schoolId: 1 }] },
        view: usualView,
        timeZone: 'UTC',
        csrfToken: '',
      },
      'GET /schools/1/term-line': termLineOf(),
      'GET /sheet-findings': found,
      'POST /standards-sheets/1/4/requests': {},
      'PUT /posting-requests/5': {},
      'PUT /posting-requests/6': {},
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

describe('after the window has closed', () => {
  const closed = { ...window, state: 'closed' } as const;
  const request = (id: number, more: Partial<PostingRequestReply> = {}): PostingRequestReply => ({
    id,
    askedBy: 'Harun Nance',
    isOwn: false,
    askedAt: '2026-01-23T17:20:00Z',
    changes: [{ ...blankMark, percent: '4', label: 'Exceeds', enrollmentId: 1, version: 0 }],
    note: 'The bell rang.',
    state: 'open',
    answer: '',
    answeredBy: null,
    ...more,
  });
  const sentTo = (sent: readonly { request: string; body: unknown }[], address: string) =>
    sent.filter((each) => each.request === address).map(({ body }) => body);
  const asked = [
    standard(1, 'Knowing', { window: closed, requests: [request(5)] }),
    standard(2, 'Doing', {
      window: closed,
      requests: [request(6), request(7, { askedBy: 'Ivo Peat' }), request(8, { state: 'declined' })],
    }),
  ];

  it('what was typed on several standards is handed to a registrar at once, and nothing is posted', async () => {
    const { person, sent } = open([
      standard(1, 'Knowing', { window: closed }),
      standard(2, 'Doing'), // still open: what was typed together goes together
    ]);
    await person.keyboard('4{ArrowUp}{ArrowUp}{ArrowRight}3{Control>}s{/Control}');
    const dialog = await screen.findByRole('dialog', { name: 'Hand 2 grades to the registrar?' });
    await person.type(within(dialog).getByLabelText('Why it comes now'), 'The bell rang.{Enter}');
    await waitFor(() => expect(sentTo(sent, 'POST /standards-sheets/1/4/requests')).toHaveLength(1));
    expect(sentTo(sent, 'POST /standards-sheets/1/4/requests')).toEqual([
      {
        note: 'The bell rang.',
        sheets: [
          { itemId: 1, changes: [expect.objectContaining({ enrollmentId: 1, percent: '4' })] },
          { itemId: 2, changes: [expect.objectContaining({ enrollmentId: 1, percent: '3' })] },
        ],
      },
    ]);
    await waitFor(() => expect([marksOf('1/1/4'), marksOf('1/2/4')]).toEqual([{}, {}]));
    expect(sentTo(sent, 'PUT /standards-sheets/1/4')).toEqual([]);
  });

  it('a registrar puts what is asked for on the sheet, saves it, and all of it is answered', async () => {
    const { person, sent } = open(asked, 'registrar');
    expect(await screen.findByText('Ivo Peat asks the registrar to post 1 grade of 1 standard')).toBeTruthy();
    const note = screen.getByText('Harun Nance asks the registrar to post 2 grades of 2 standards').parentElement!;
    await person.click(await within(note).findByRole('button', { name: 'Put them on the sheet' }));
    expect(textsOf(1).slice(0, 2)).toEqual(['4Exceeds3.25', '4Exceeds3.25']);
    await person.click(screen.getByRole('button', { name: /^Save 2/ }));
    await person.click(screen.getByRole('button', { name: 'Post for Quarter 2' }));
    await waitFor(() => expect(sentTo(sent, 'PUT /posting-requests/6')).toEqual([{ state: 'posted', answer: '' }]));
    expect(sentTo(sent, 'PUT /posting-requests/5')).toEqual([{ state: 'posted', answer: '' }]);
    expect(sentTo(sent, 'PUT /standards-sheets/1/4')).toEqual([expect.objectContaining({ outsideWindow: true })]);
  });

  it('requests that were made together are declined together, with a word', async () => {
    const { person, sent } = open(asked, 'registrar');
    const [decline] = await screen.findAllByRole('button', { name: 'Decline…' });
    await person.click(decline!);
    await person.type(screen.getByLabelText('What Harun Nance is told'), 'Next quarter.{Enter}');
    await waitFor(() => expect(sentTo(sent, 'PUT /posting-requests/6')).toHaveLength(1));
    expect(sentTo(sent, 'PUT /posting-requests/5')).toEqual([{ state: 'declined', answer: 'Next quarter.' }]);
  });
});

it('what the audit found is told by standard, and leads to its cell', async () => {
  const finding = {
    severity: 'warns',
    sentence: 'It differs from what is computed.',
    toldAt: null,
    since: null,
  };
  const { person, grid } = open(sheets, 'teacher', {
    at: '2026-01-21T09:00:00Z',
    findings: [
      { ...finding, key: 'a', enrollmentId: 3, itemId: 2 },
      { ...finding, key: 'b', enrollmentId: 3, itemId: 77 }, // posted on another sheet
    ],
  });
  expect((await screen.findByText(/^The audit of/)).textContent).toMatch(/found 1 thing here$/);
  await person.click(screen.getByRole('button', { name: /^Student 3, Doing.*It differs/ }));
  const cell = document.getElementById(grid.getAttribute('aria-activedescendant')!);
  expect([cell!.closest('[role=row]')!.textContent, cell!.getAttribute('aria-colindex')]).toEqual(['Student 3', '3']);
});
