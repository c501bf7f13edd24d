import { noCounts } from '#core/board';
import { screen, waitFor, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { usualView } from '#core/people';
import type { BoardReply, RemindersRequest } from '#contract/board';
import { board, boardSection, boardSheet } from '../../test/board.fixture';
import { showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { setDistrictZone } from '../ui/format';
import { BoardPage } from './board-page';

const fingerprint = 'abc';
const preview = {
  fingerprint,
  isSent: false,
  messages: [
    {
      teacherId: 8,
      teacher: 'Coral Orr',
      address: 'coral@example.org',
      sheets: 1,
      earlier: 1,
      subject: '1 sheet of Quarter 2 is not signed off',
      text: 'Dear Coral Orr,',
    },
  ],
  skipped: [{ teacher: 'Harun Nance', why: 'No e-mail address is known. Enter it under People.' }],
};

function open(address = 'board', reply: BoardReply = board(), more: Answers = {}) {
  return showAt(<BoardPage />, {
    address,
    answers: {
      'GET /schools/1/term-line': termLineOf(),
      'GET /session': {
        person: { personId: 1, grants: [{ role: 'registrar', schoolId: null }] },
        view: usualView,
        timeZone: 'UTC',
        csrfToken: '',
      },
      'GET /board': reply,
      'POST /board/4/reminders': (body: unknown) =>
        (body as RemindersRequest).fingerprint ? { ...preview, isSent: true } : preview,
      ...more,
    },
  });
}
const firstCells = async (grid: string) =>
  within(await screen.findByRole('grid', { name: grid }))
    .getAllByRole('row')
    .slice(1)
    .map((each) => each.firstElementChild!.textContent);

beforeEach(() => setDistrictZone('UTC'));

describe('the board', () => {
  it('says how many sheets are signed off, and shows those that are not when that is chosen', async () => {
    const { person, search } = open();
    const headline = await screen.findByRole('heading', { level: 1 });
    expect(headline.textContent).toContain('2 of 5 sheets are signed off; 3 are not.');
    expect(headline.textContent).toContain('The window closes Friday at 17:00.');
    await person.click(within(headline).getByRole('button', { name: '3' }));
    expect(search()).toContain('show=open');
    expect(await firstCells('Board')).toEqual(['Letters 1', 'Shore Life 1', 'Knots 2']);
  });

  it('gathers teachers and departments, and leads from one of them to their sections', async () => {
    const { person, search } = open('board?by=teacher');
    expect(await firstCells('Board by teacher')).toEqual(['Orr, Coral', 'Nance, Harun']);
    await person.click(screen.getByText('Orr, Coral'));
    expect(search()).toContain('teacher=8');
    expect(await firstCells('Board')).toEqual(['Letters 1']);
    await person.click(screen.getByRole('button', { name: /Orr, Coral/ }));
    expect(await firstCells('Board')).toHaveLength(4);
  });

  it('gathers schools, the late ones first, and leads to the board of one', async () => {
    const school = (schoolId: number, name: string, more: object) => ({
      ...noCounts,
      schoolId,
      school: name,
      periodId: 10 * schoolId,
      period: 'Term 1',
      sealedAt: null,
      due: 4,
      signedOff: 1,
      late: 0,
      ...more,
    });
    const { person } = open('board?by=school', board(), {
      'GET /schools': [1, 2].map((id) => ({ id, name: `School ${id}`, shortName: `S${id}`, takesAttendance: false })),
      'GET /board/schools': [
        school(1, 'Upper School', {}),
        school(2, 'Primary School', { late: 3_600_000, blanks: 7 }),
      ],
    });
    expect(await firstCells('Board by school')).toEqual(['Primary School', 'Upper School']);
    expect(screen.getAllByRole('row')[1]!.textContent).toContain('1 / 4late 1 hour');
    await person.click(screen.getByText('Primary School'));
    // The address of another school: its board is not of this page.
    await waitFor(() => expect(screen.queryByRole('grid')).toBeNull());
  });

  it('says what an empty board means', async () => {
    open('board?show=overrides');
    expect(await screen.findByText('There are no sheets with overrides now.')).toBeTruthy();
  });

  it('of a sealed period says so', async () => {
    open('board', board({ sealedAt: '2026-02-01T10:00:00Z' }));
    expect(await screen.findByText('Quarter 2 is sealed. Its grades change only by amendment.')).toBeTruthy();
  });

  it('counts the last minutes down', async () => {
    open('board', board({ now: '2026-01-23T16:18:30.000Z' }));
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toContain(
      'The window closes in 42 minutes.',
    );
  });

  it('holds a thousand sections', async () => {
    const sections = Array.from({ length: 1000 }, (_each, at) => boardSection(at, `Knots ${at}`, [boardSheet(1)]));
    open('board', board({ sections }));
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toContain(
      '0 of 1,000 sheets are signed off',
    );
  });
});

describe('reminding', () => {
  it('shows each message and who is skipped, then sends what was looked at', async () => {
    const { person, sent } = open('board?show=open');
    await person.click(await screen.findByRole('button', { name: 'Remind 2 teachers…' }));
    const dialog = await screen.findByRole('dialog', { name: 'Remind 2 teachers' });
    expect(await within(dialog).findByText('Dear Coral Orr,')).toBeTruthy();
    expect(dialog.textContent).toContain('reminded 1 time before');
    expect(dialog.textContent).toContain('Harun Nance is skipped: No e-mail address is known.');
    await person.click(within(dialog).getByRole('button', { name: 'Send 1 message' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    const bodies = sent.filter(({ request }) => request === 'POST /board/4/reminders').map(({ body }) => body);
    expect(bodies.at(-1)).toEqual({ teacherIds: [7, 8], note: '', fingerprint });
  });

  it('does not send words that were not looked at yet', async () => {
    const { person } = open('board?show=open');
    await person.click(await screen.findByRole('button', { name: 'Remind 2 teachers…' }));
    await screen.findByText('Dear Coral Orr,');
    await person.type(screen.getByLabelText(/Your own words/), 'Please come by.');
    expect(screen.getByRole('button', { name: /^Send/ })).toHaveProperty('disabled', true);
    await person.click(screen.getByRole('button', { name: 'Add' }));
    await waitFor(() => expect(screen.getByRole('button', { name: /^Send/ })).toHaveProperty('disabled', false));
  });
});
