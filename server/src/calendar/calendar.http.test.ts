import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CalendarReply, TermLineReply } from '#contract/calendar';
import type { Problem } from '#contract/problems';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const all = async () => (await registrar.get<CalendarReply[]>('/calendars')).body;
const ofSchool = async (school: number) => (await all()).find((each) => each.school.id === school)!;
const requestOf = ({ revision, weekdays, periods, breaks, windows }: CalendarReply) => ({
  revision,
  weekdays,
  periods: periods.map(({ id, parentId, kind, name, startsOn, endsOn }) => ({
    id,
    parentId,
    kind,
    name,
    startsOn,
    endsOn,
  })),
  breaks,
  windows: windows.map(({ id: _id, ...window }) => window),
});
type Request = ReturnType<typeof requestOf>;
const save = <Body>(school: number, request: object) =>
  registrar.send<Body>('PUT', `/schools/${school}/calendar`, request);
const undo = <Body>(change: number | null) => registrar.send<Body>('POST', `/changes/${change}/undo`);
const withPeriod = (request: Request, id: number, change: object) => ({
  ...request,
  periods: request.periods.map((period) => (period.id === id ? { ...period, ...change } : period)),
});

it('shows the calendars of all schools side by side', async () => {
  const calendars = await all();
  expect(calendars.map(({ school, periods, breaks }) => [school.shortName, periods.length, breaks.length])).toEqual([
    ['Upper School', 7, 3],
    ['Gannet Primary', 4, 3],
    ['Evening College', 4, 2],
    ['Spindle Rock', 5, 2],
  ]);
  expect(calendars[0]!.periods.find(({ id }) => id === 3)).toMatchObject({ isSealed: true, name: 'Quarter 1' });
});

describe('a calendar', () => {
  it('saved as it is stays as it is; from an older one it is refused, with who saved first', async () => {
    const before = await ofSchool(1);
    const { status, body, change } = await save<CalendarReply>(1, requestOf(before));
    expect([status, body, change]).toEqual([200, before, null]);
    const first = await save<CalendarReply>(1, { ...requestOf(before), weekdays: [1, 2, 3, 4] });
    const stale = await save<Problem>(1, { ...requestOf(before), breaks: [] });
    expect([stale.status, stale.body.code]).toEqual([409, 'changed-meanwhile']);
    expect(stale.body.detail).toMatch(/^Morwenna Oake changed the calendar since you opened it/);
    expect((await undo(first.change)).status).toBe(200);
    expect((await ofSchool(1)).revision).toBe(before.revision);
  });

  it.each<[string, (request: Request) => object, string, string]>([
    [
      'a period outside its parent',
      (now) => withPeriod(now, 7, { endsOn: '2026-06-19' }),
      'periods.6',
      'Quarter 4 reaches outside Semester 2, which runs from 2026-01-26 to 2026-06-12.',
    ],
    [
      'a period that ends before it starts',
      (now) => withPeriod(now, 7, { endsOn: '2026-04-01' }),
      'periods.6',
      'Quarter 4 ends on 2026-04-01, before it starts on 2026-04-13.',
    ],
    [
      'periods that share days',
      (now) => withPeriod(now, 7, { startsOn: '2026-04-01' }),
      'periods.6',
      'Quarter 4 and Quarter 3 share the days 2026-04-01 to 2026-04-02.',
    ],
    [
      'a window that closes before it opens',
      (now) => ({
        ...now,
        windows: now.windows.map((window, at) => (at === 0 ? { ...window, closesAt: '2025-10-01T00:00:00Z' } : window)),
      }),
      'windows.0',
      'The window of Quarter grade for Quarter 1 closes before it opens.',
    ],
    [
      'a break outside the year',
      (now) => ({ ...now, breaks: [{ id: -1, name: 'Summer', startsOn: '2026-07-01', endsOn: '2026-07-02' }] }),
      'breaks.0',
      'Summer (2026-07-01 to 2026-07-02) lies in no year of the calendar.',
    ],
  ])('with %s is refused with the place named, and nothing is saved', async (_what, change, field, detail) => {
    const before = await ofSchool(1);
    const { status, body } = await save<Problem>(1, change(requestOf(before)));
    expect([status, body.code, body.errors[0]]).toEqual([422, 'calendar-faulty', { field, detail }]);
    expect(await ofSchool(1)).toEqual(before);
  });

  it('leaves the days of a sealed period alone, and a period that sections hang on', async () => {
    const now = requestOf(await ofSchool(1));
    const { body: sealed } = await save<Problem>(1, withPeriod(now, 3, { startsOn: '2025-09-02' }));
    expect([sealed.status, sealed.code]).toEqual([409, 'period-sealed']);
    const without = {
      ...now,
      periods: now.periods.filter(({ id }) => id !== 7),
      windows: now.windows.filter(({ periodId }) => periodId !== 7),
    };
    const saved = await save<CalendarReply>(1, without);
    expect(saved.status).toBe(200);
    const used = {
      ...without,
      revision: saved.body.revision,
      periods: without.periods.filter(({ id }) => id !== 4),
      windows: [],
    };
    const { body } = await save<Problem>(1, used);
    await undo(saved.change);
    expect([body.code, body.detail]).toEqual([
      'in-use',
      expect.stringMatching(
        /^Quarter 2 is used by [\d,]+ posted grades, 1 file and [\d,]+ assignments.* Change its name/,
      ),
    ]);
  });
});

describe('an undo of a saved calendar', () => {
  const bare = ({ breaks, windows, ...rest }: CalendarReply) => ({
    ...rest,
    breaks: breaks.map(({ name, startsOn }) => [name, startsOn]),
    windows: windows.map(({ id: _id, ...window }) => window),
  });

  it('brings a removed period back under its number, with its windows, and the breaks that went with it', async () => {
    const before = await ofSchool(1);
    const now = requestOf(before);
    const { change } = await save<CalendarReply>(1, {
      ...now,
      periods: now.periods.filter(({ id }) => id !== 7),
      windows: now.windows.filter(({ periodId }) => periodId !== 7),
      breaks: [],
    });
    const without = await ofSchool(1);
    expect([without.periods.length, without.breaks]).toEqual([before.periods.length - 1, []]);
    expect((await undo(change)).status).toBe(200);
    expect(bare(await ofSchool(1))).toEqual(bare(before));
  });

  it('is refused where sections run in the year that it would take away', async () => {
    const { revision } = await ofSchool(2);
    const { change, body } = await registrar.send<CalendarReply[]>('POST', '/calendars/copy-years', {
      years: [{ schoolId: 2, revision, yearId: 11, name: '2026–27', startsOn: '2026-09-07' }],
    });
    const year = body[0]!.periods.find(({ name }) => name === '2026–27')!;
    const { pool } = server.database;
    await pool.query('UPDATE sections SET period_id = $1 WHERE id = (SELECT max(id) FROM sections)', [year.id]);
    const refused = await undo<Problem>(change);
    expect([refused.status, refused.body.code, refused.body.detail]).toEqual([
      409,
      'in-use',
      expect.stringMatching(/^2026–27 is used by 1 section\./),
    ]);
    await pool.query('UPDATE sections SET period_id = 11 WHERE id = (SELECT max(id) FROM sections)');
    expect((await undo(change)).status).toBe(200);
    expect((await ofSchool(2)).revision).toBe(revision);
  });
});

describe('a year copied onto the next', () => {
  const copyYears = <Body>(...years: readonly object[]) =>
    registrar.send<Body>('POST', '/calendars/copy-years', { years });

  it('keeps every day of the week, moves breaks and windows, and leaves the old year as it was', async () => {
    const before = await ofSchool(3);
    const year2627 = { schoolId: 3, revision: before.revision, yearId: 21, name: '2026–27', startsOn: '2026-09-08' };
    const answer = await copyYears<CalendarReply[]>(year2627);
    const [status, body] = [answer.status, answer.body[0]!];
    expect([status, body.periods.length, body.breaks.length, body.windows.length]).toEqual([
      201,
      8,
      4,
      2 * before.windows.length,
    ]);
    const year = body.periods.find(({ name }) => name === '2026–27')!;
    expect([year.startsOn, year.endsOn]).toEqual(['2026-09-07', '2027-06-25']);
    const weekday = (day: string) => new Date(day).getUTCDay();
    for (const old of before.periods.filter(({ parentId }) => parentId === 21)) {
      const copy = body.periods.find(({ name, parentId }) => name === old.name && parentId === year.id)!;
      expect([weekday(copy.startsOn), weekday(copy.endsOn)]).toEqual([weekday(old.startsOn), weekday(old.endsOn)]);
    }
    expect(body.windows.at(-1)!.closesAt).toBe('2027-06-29T17:00:00.000Z');
    const line = await registrar.get<TermLineReply>('/schools/3/term-line');
    expect(line.body.suggestedPeriodId).toBe(23);
  });

  it('is refused where that year is there already', async () => {
    const { revision } = await ofSchool(3);
    const request = { schoolId: 3, revision, yearId: 21, name: '2026–27', startsOn: '2026-09-08' };
    const { status, body } = await copyYears<Problem>(request);
    expect([status, body.detail]).toEqual([409, '2026–27 is already in the calendar of Evening College.']);
  });

  it('is refused where it would share days with the year before, and with it every other year asked for', async () => {
    const [upper, primary] = [await ofSchool(1), await ofSchool(2)];
    const yearOf = ({ periods }: CalendarReply) => periods.find(({ parentId }) => parentId === null)!;
    const { status, body } = await copyYears<Problem>(
      { schoolId: 1, revision: upper.revision, yearId: yearOf(upper).id, name: '2026–27', startsOn: '2026-09-01' },
      { schoolId: 2, revision: primary.revision, yearId: yearOf(primary).id, name: '2026–27', startsOn: '2026-05-05' },
    );
    expect([status, body.code]).toEqual([422, 'calendar-faulty']);
    expect(body.errors[0]!.detail).toMatch(/^2026–27 and 2025–26 share the days 2026-05-0\d to 2026-0\d-\d\d\.$/);
    expect([await ofSchool(1), await ofSchool(2)]).toEqual([upper, primary]);
  });
});
