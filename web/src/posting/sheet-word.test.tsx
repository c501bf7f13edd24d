import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { usualView } from '#core/people';
import type { PostingRequestReply, SheetReply } from '#contract/posting';
import { board } from '../../test/board.fixture';
import { made, showAt } from '../../test/show-at.fixture';
import { blankMark, computedFrom, sheetOf, sheetRow } from '../../test/sheet.fixture';
import { discardDrafts } from '../shell/kept-drafts';
import { GradeSheet } from './grade-sheet';

const window = {
  state: 'open',
  opensAt: '2026-01-19T08:00:00Z',
  closesAt: '2026-01-23T17:00:00Z',
  graceUntil: null,
  latePosters: 'registrars',
} as const;
const closed = { ...window, state: 'closed' } as const;
const signedOff = { by: 'Harun Nance', onBehalfOf: null, at: '2026-01-20T12:00:00Z', note: 'One waits.' };
const request: PostingRequestReply = {
  id: 5,
  askedBy: 'Harun Nance',
  isOwn: false,
  askedAt: '2026-01-23T17:20:00Z',
  changes: [{ ...blankMark, percent: '95', label: 'A', enrollmentId: 1, version: 0 }],
  note: 'The bell rang.',
  state: 'open',
  answer: '',
  answeredBy: null,
};
const rows = [
  sheetRow(1, { givenNames: ['Yara'] }),
  sheetRow(2, { givenNames: ['Hale'], computed: computedFrom('91.27') }),
];

function open(more: Partial<SheetReply> = {}, role: 'teacher' | 'registrar' = 'teacher') {
  return showAt(
    <GradeSheet sheet={sheetOf(rows, { window, ...more })} sheetKey={{ sectionId: 2, itemId: 1, periodId: 4 }} />,
    {
      address: 'grade-sheets/2/1',
      answers: {
        'GET /session': {
          person: { personId: 7, grants: [{ role, schoolId: 1 }] },
          view: usualView,
          timeZone: 'UTC',
          csrfToken: '',
        },
        'GET /board': board(),
        'PUT /grade-sheets/2/1/4/sign-off': made(9, { signedOff }),
        'DELETE /grade-sheets/2/1/4/sign-off': made(10, { signedOff: null }),
        'POST /grade-sheets/2/1/4/requests': {},
        'PUT /grade-sheets/2/1/4': made(11, { receipt: null, rows: [] }),
        'PUT /posting-requests/5': {},
      },
    },
  );
}
const sentTo = (sent: readonly { request: string; body: unknown }[], address: string) =>
  sent.filter((each) => each.request === address).map(({ body }) => body);

beforeEach(() => discardDrafts());

describe('signing off', () => {
  it('says what is still missing, takes a note, and goes on to the next sheet', async () => {
    const { person, sent, address } = open();
    await person.click(screen.getByRole('button', { name: 'Sign off…' }));
    const dialog = screen.getByRole('dialog', { name: /^Sign off Quarter grade of Shore Life 1, Quarter 2/ });
    expect(within(dialog).getByText('2 blanks')).toBeTruthy();
    await person.type(within(dialog).getByLabelText(/Note for the registrar/), 'One waits.');
    await person.click(within(dialog).getByRole('button', { name: 'Sign off all the same' }));
    await waitFor(() => expect(address()).toBe('/school/1/period/4/grade-sheets/3/1'));
    expect(sentTo(sent, 'PUT /grade-sheets/2/1/4/sign-off')).toEqual([{ note: 'One waits.' }]);
    expect(await screen.findByText('Shore Life 1 is signed off. This is the next sheet.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Undo' })).toBeTruthy();
  });

  it('waits until everything typed is saved', async () => {
    const { person } = open();
    screen.getByRole('grid').focus();
    await person.keyboard('95{Enter}');
    expect(screen.getByRole('button', { name: 'Sign off…' })).toHaveProperty('disabled', true);
  });

  it('is seen with its note, holds the grades as they are, and is taken back', async () => {
    const { person, sent } = open({ signedOff });
    expect(screen.getByRole('heading', { name: 'Signed off by Harun Nance' })).toBeTruthy();
    expect(screen.getByText('“One waits.”')).toBeTruthy();
    screen.getByRole('grid').focus();
    await person.keyboard('95{Enter}');
    expect(screen.getAllByText('blank')).toHaveLength(2);
    await person.click(screen.getByRole('button', { name: 'Take back the sign-off' }));
    await waitFor(() => expect(sentTo(sent, 'DELETE /grade-sheets/2/1/4/sign-off')).toHaveLength(1));
  });
});

describe('after the window has closed', () => {
  it('what a teacher typed is handed to a registrar and nothing is posted', async () => {
    const { person, sent } = open({ window: closed });
    screen.getByRole('grid').focus();
    await person.keyboard('95{Enter}');
    await person.click(screen.getByRole('button', { name: 'Hand 1 grade to the registrar…' }));
    await person.type(screen.getByLabelText('Why it comes now'), 'The bell rang.{Enter}');
    await waitFor(() => expect(sentTo(sent, 'POST /grade-sheets/2/1/4/requests')).toHaveLength(1));
    const [asked] = sentTo(sent, 'POST /grade-sheets/2/1/4/requests') as [{ changes: object[]; note: string }];
    expect([asked.note, asked.changes]).toEqual([
      'The bell rang.',
      [expect.objectContaining({ enrollmentId: 1, percent: '95', label: 'A' })],
    ]);
    expect(sentTo(sent, 'PUT /grade-sheets/2/1/4')).toEqual([]);
    await waitFor(() => expect(screen.getAllByText('blank')).toHaveLength(2));
  });

  it('a registrar puts what is asked for on the sheet, saves it, and it is answered', async () => {
    const { person, sent } = open({ window: closed, requests: [request], onBehalfOf: 'Nance, Harun' }, 'registrar');
    expect(await screen.findByText('Harun Nance asks the registrar to post 1 grade')).toBeTruthy();
    expect(screen.getByText(/You post on behalf of/).textContent).toContain('Harun Nance gets the receipt');
    await person.click(await screen.findByRole('button', { name: 'Put them on the sheet' }));
    expect(screen.getByRole('row', { name: /^Student 1/ }).textContent).toContain('95.0');
    await person.click(screen.getByRole('button', { name: /^Save 1/ }));
    await person.click(screen.getByRole('button', { name: 'Post for Quarter 2' }));
    await waitFor(() => expect(sentTo(sent, 'PUT /posting-requests/5')).toEqual([{ state: 'posted', answer: '' }]));
    expect(sentTo(sent, 'PUT /grade-sheets/2/1/4')).toEqual([expect.objectContaining({ outsideWindow: true })]);
  });

  it('what was put on the sheet and changed there answers its request when it is saved after the page was left', async () => {
    const asking = { window: closed, requests: [request], onBehalfOf: 'Nance, Harun' };
    const first = open(asking, 'registrar');
    await first.person.click(await screen.findByRole('button', { name: 'Put them on the sheet' }));
    cleanup();
    const { person, sent } = open(asking, 'registrar');
    await person.click(await screen.findByRole('gridcell', { name: /95\.0/ }));
    await person.keyboard('94{Enter}');
    await person.click(screen.getByRole('button', { name: /^Save 1/ }));
    await person.click(screen.getByRole('button', { name: 'Post for Quarter 2' }));
    await waitFor(() => expect(sentTo(sent, 'PUT /posting-requests/5')).toEqual([{ state: 'posted', answer: '' }]));
    expect(sentTo(sent, 'PUT /grade-sheets/2/1/4')).toEqual([
      expect.objectContaining({ changes: [expect.objectContaining({ percent: '94' })] }),
    ]);
  });

  it('a request is declined with a word', async () => {
    const { person, sent } = open({ window: closed, requests: [request] }, 'registrar');
    await person.click(await screen.findByRole('button', { name: 'Decline…' }));
    await person.type(screen.getByLabelText('What Harun Nance is told'), 'Next quarter.{Enter}');
    await waitFor(() =>
      expect(sentTo(sent, 'PUT /posting-requests/5')).toEqual([{ state: 'declined', answer: 'Next quarter.' }]),
    );
  });
});

describe('comments', () => {
  it('are chosen with the student’s own words filled in, for the school alone, and the next student comes without closing', async () => {
    const { person } = open({ stockComments: ['{Name} knows {their} work.'] });
    screen.getByRole('grid').focus();
    await person.keyboard('m');
    const dialog = screen.getByRole('dialog', { name: /^Comment on/ });
    await person.click(within(dialog).getByRole('button', { name: 'Yara knows their work.' }));
    expect(within(dialog).getByLabelText(/^Comment/)).toHaveProperty('value', 'Yara knows their work.');
    expect(within(dialog).getByText('78 left')).toBeTruthy();
    await person.click(within(dialog).getByLabelText(/For the school only/));
    await person.click(within(dialog).getByRole('button', { name: /^Next student/ }));
    expect(within(dialog).getByRole('button', { name: 'Hale knows their work.' })).toBeTruthy();
    await person.type(within(dialog).getByLabelText(/^Comment/), 'Ask Yara.');
    expect(within(dialog).getByRole('alert').textContent).toBe('Yara is the name of another student of this section.');
    await person.click(within(dialog).getByRole('button', { name: 'Done' }));
    expect(screen.getByRole('row', { name: /^Student 1/ }).textContent).toContain('Yara knows their work. school only');
  });
});

describe('an override', () => {
  it('asks for a reason, and one key returns to what is computed', async () => {
    const { person } = open();
    const own = () => screen.getByRole('row', { name: /^Student 2/ }).textContent;
    screen.getByRole('grid').focus();
    await person.keyboard('{ArrowDown}80{Enter}');
    expect(own()).toContain('no reason is given. Say why, or press r');
    await person.keyboard('{End}Late work{Enter}');
    expect(own()).not.toContain('Say why');
    await person.keyboard('{ArrowUp}{ArrowDown}{Home}r');
    expect(own()).toContain('91.3');
    await person.keyboard('{Control>}{Home}{/Control}{Shift>}{ArrowDown}{/Shift}r');
    expect(screen.getAllByText('blank')).toHaveLength(1); // nothing is computed for the first
  });
});
