import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { usualView } from '#core/people';
import { dayOrThrow } from '#core/calendar';
import type { AttendanceListReply, RegisterReply, SaveRegistersRequest } from '#contract/attendance';
import { made, showAt, showRoutes } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { discardDrafts } from '../shell/kept-drafts';
import { AttendancePage } from './attendance-page';
import { RegisterPage } from './register-page';

const day = dayOrThrow;
const [monday, tuesday, wednesday, thursday] = ['2026-01-19', '2026-01-20', '2026-01-21', '2026-01-22'].map(day);
const student = (enrollmentId: number, more: object = {}) => ({
  enrollmentId,
  student: `Student ${enrollmentId}`,
  enteredOn: day('2026-01-05'),
  withdrawnOn: null,
  absences: {},
  missed: 1,
  of: 9,
  ...more,
});
const register = (more: Partial<RegisterReply> = {}): RegisterReply => ({
  sectionId: 5,
  section: 'Weaving 1',
  teacher: 'Nance, Harun',
  takesAttendance: true,
  mayTake: true,
  today: wednesday!,
  days: [
    { day: monday!, taken: { by: 'Harun Nance', at: '2026-01-19T16:05:00Z' }, revision: 'm' },
    { day: tuesday!, taken: null, revision: 't' },
    { day: wednesday!, taken: null, revision: 'w' },
    { day: thursday!, taken: null, revision: 'f' },
  ],
  weekBefore: day('2026-01-12'),
  weekAfter: null,
  students: [
    student(1, { absences: { '2026-01-19': 'absent' } }),
    student(2, { enteredOn: tuesday }),
    student(3, { withdrawnOn: day('2026-01-16') }),
    student(4),
  ],
  ...more,
});
const session = (role: string) => ({
  person: { personId: 7, name: 'Harun Nance', grants: [{ role, schoolId: null }] },
  view: usualView,
  timeZone: 'UTC',
  csrfToken: '',
});
const list: AttendanceListReply = {
  schoolId: 1,
  takesAttendance: true,
  today: wednesday!,
  sections: [
    {
      sectionId: 4,
      section: 'Knots 1',
      courseCode: 'KNO',
      teacher: 'N',
      students: 9,
      days: 13,
      taken: 13,
      lastTaken: wednesday!,
    },
    {
      sectionId: 5,
      section: 'Weaving 1',
      courseCode: 'WEA',
      teacher: 'N',
      students: 4,
      days: 13,
      taken: 9,
      lastTaken: monday!,
    },
    {
      sectionId: 6,
      section: 'Tides 2',
      courseCode: 'TID',
      teacher: 'N',
      students: 3,
      days: 13,
      taken: 0,
      lastTaken: null,
    },
  ],
};

beforeEach(() => discardDrafts());

async function openRegister(reply: RegisterReply | (() => RegisterReply) = register(), save?: () => object) {
  const view = showRoutes([{ path: 'attendance/:sectionId', element: <RegisterPage /> }], {
    address: 'attendance/5',
    answers: {
      'GET /session': session('teacher'),
      'GET /schools/1/term-line': termLineOf(),
      'GET /attendance': list,
      'GET /attendance/5/4': reply,
      'PUT /attendance/5/4': save ?? (() => made(9, register())),
    },
  });
  const grid = await screen.findByRole('grid', { name: 'Attendance' });
  grid.focus();
  return { ...view, grid };
}
const textsOf = (which: number) =>
  within(screen.getByRole('row', { name: new RegExp(`^Student ${which}`) }))
    .getAllByRole('gridcell')
    .map(({ textContent }) => textContent);
const sentDays = (sent: readonly { request: string; body: unknown }[]) =>
  (sent.find(({ request }) => request === 'PUT /attendance/5/4')!.body as SaveRegistersRequest).days;

const refused = { type: 'urn:wombat:problem:unexpected', status: 409, detail: '', errors: [] };

describe('a register by keyboard', () => {
  it('shows who came on days that are taken, and nothing on others', async () => {
    await openRegister();
    expect(textsOf(1)).toEqual(['A', '', '', '', '1 of 9']);
    expect(textsOf(2)).toEqual(['', '', '', '', '1 of 9']);
    expect(textsOf(4)).toEqual(['P', '', '', '', '1 of 9']);
  });

  it('is all present by one key, then the exceptions, and saves the whole day', async () => {
    const { person, sent } = await openRegister();
    await person.keyboard('t{ArrowRight}{ArrowRight}{ArrowDown}{ArrowDown}{ArrowDown}a');
    expect([1, 2, 3, 4].map((each) => textsOf(each)[2])).toEqual(['P', 'P', '', 'A']);
    await person.keyboard('{Control>}s{/Control}');
    await waitFor(() =>
      expect(sentDays(sent)).toEqual([
        { day: wednesday, revision: 'w', absences: [{ enrollmentId: 4, kind: 'absent' }] },
      ]),
    );
  });

  it('a letter on a day that is not taken takes it, and goes on to the next student who sits there', async () => {
    const { person } = await openRegister();
    await person.keyboard('{ArrowRight}lea');
    expect([1, 2, 3, 4].map((each) => textsOf(each)[1])).toEqual(['L', 'E', '', 'A']);
    await person.keyboard('{Control>}z{/Control}{Control>}z{/Control}{Control>}z{/Control}');
    expect([1, 2, 3, 4].map((each) => textsOf(each)[1])).toEqual(['', '', '', '']);
  });

  it('takes nothing on a day to come, before a student came, or after one left', async () => {
    const { grid } = await openRegister();
    fireEvent.paste(grid, { clipboardData: { getData: () => 'A\tA\tA\tA\nA\tA\tA\tA\nA\tA\tA\tA\nP\tP\tP\tP' } });
    expect([1, 2, 3, 4].map((each) => textsOf(each).slice(0, 4))).toEqual([
      ['A', 'A', 'A', ''],
      ['', 'A', 'A', ''],
      ['', '', '', ''],
      ['P', 'P', 'P', ''],
    ]);
  });

  it('keeps what it cannot read, and says what would be right', async () => {
    const { grid } = await openRegister();
    fireEvent.paste(grid, { clipboardData: { getData: () => 'ill' } });
    expect(textsOf(1)[0]).toBe('ill');
    expect(screen.getByTitle('P for present, A for absent, E for excused or L for late')).toBeTruthy();
  });

  it('that somebody else took meanwhile stands beside what was typed until one is chosen', async () => {
    let now = register();
    const { person, sent } = await openRegister(
      () => now,
      () => ({ ...refused, code: 'changed-meanwhile', title: 'Someone else changed this first' }),
    );
    await person.keyboard('{ArrowRight}a');
    const theirs = { day: tuesday!, taken: { by: 'Morwenna Oake', at: '2026-01-20T16:00:00Z' }, revision: 'theirs' };
    now = register({ days: now.days.map((each) => (each.day === tuesday ? theirs : each)) });
    await person.keyboard('{Control>}s{/Control}');
    expect((await screen.findByText(/by Morwenna Oake/)).textContent).toContain('What you typed is kept');
    expect([sentDays(sent)[0]!.revision, textsOf(1)[1]]).toEqual(['t', 'A']);
    await person.click(screen.getByRole('button', { name: 'Keep mine over theirs' }));
    expect(screen.queryByText(/by Morwenna Oake/)).toBeNull();
    await person.click(screen.getByRole('button', { name: /^Save/ }));
    await waitFor(() => expect(sent.filter(({ request }) => request === 'PUT /attendance/5/4')).toHaveLength(2));
    expect(sentDays(sent.toReversed())[0]!.revision).toBe('theirs');
  });

  it('is read and not typed into by who may only read', async () => {
    const { person } = await openRegister(register({ mayTake: false }));
    await person.keyboard('{ArrowRight}a');
    expect(textsOf(1)[1]).toBe('');
    expect(screen.queryByRole('button', { name: /^Save/ })).toBeNull();
  });
});

describe('the sections', () => {
  const open = (reply: AttendanceListReply, role = 'registrar') =>
    showAt(<AttendancePage />, {
      address: 'attendance',
      answers: {
        'GET /session': session(role),
        'GET /schools/1/term-line': termLineOf(),
        'GET /attendance': reply,
        'PUT /schools/1/attendance': {},
      },
    });

  it('stand with the longest untaken first, and say in how many it is taken today', async () => {
    open(list);
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toContain('it is taken in 1 of 3 sections');
    const rows = screen.getAllByRole('row').slice(1);
    expect(rows.map((row) => /Tides 2|Weaving 1|Knots 1/.exec(row.textContent)![0])).toEqual([
      'Tides 2',
      'Weaving 1',
      'Knots 1',
    ]);
  });

  it('of a school without attendance offer to begin it, to who may', async () => {
    const { person, sent } = open({ ...list, takesAttendance: false });
    await person.click(await screen.findByRole('button', { name: 'Take attendance at Upper School' }));
    await waitFor(() =>
      expect(sent.find(({ request }) => request === 'PUT /schools/1/attendance')?.body).toEqual({
        takesAttendance: true,
      }),
    );
  });

  it('of a school without attendance say so to everybody else', async () => {
    open({ ...list, takesAttendance: false }, 'viewer');
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe(
      'Upper School takes no attendance by day.',
    );
    expect(screen.queryByRole('button')).toBeNull();
  });
});
