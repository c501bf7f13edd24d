import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CalendarReply } from '#contract/calendar';
import type { PeopleReply, SessionReply } from '#contract/people';
import type { Problem } from '#contract/problems';
import type { OpenedSchoolReply, SchoolNamesReply } from '#contract/schools';
import { checkLog } from '../../test/check-log.js';
import { startEmptyServer, startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

const request = (over: object = {}, year: object = {}) => ({
  district: null,
  name: 'Skerry Upper School',
  shortName: 'Skerry',
  code: 'SKY',
  year: { name: '2026–27', startsOn: '2026-09-01', endsOn: '2027-06-30', division: 'quarters', ...year },
  ...over,
});

describe('an empty Wombat', () => {
  let server: TestServer & { readonly registrar: TestClient };
  beforeAll(async () => {
    server = await startEmptyServer();
  });
  afterAll(() => server.stop());

  const schools = async () => (await server.registrar.get<{ shortName: string }[]>('/schools')).body;
  const calendars = async () => (await server.registrar.get<CalendarReply[]>('/calendars')).body;
  const session = async () => (await server.registrar.get<SessionReply>('/session')).body;

  it('gets its district, a school and a first year by hand, in one change that goes back as a whole', async () => {
    const before = await session();
    const district = { name: 'Skerry Islands', timeZone: 'Atlantic/Faroe' };
    const { status, body, change } = await server.registrar.send<OpenedSchoolReply>(
      'POST',
      '/schools',
      request({ district }),
    );
    expect([status, (await schools()).map(({ shortName }) => shortName)]).toEqual([201, ['Skerry']]);
    expect(await session()).toMatchObject({ district: 'Skerry Islands', timeZone: 'Atlantic/Faroe' });
    const [calendar] = await calendars();
    expect(calendar!.periods.map(({ name, startsOn }) => [name, startsOn])).toEqual([
      ['2026–27', '2026-09-01'],
      ['Semester 1', '2026-09-01'],
      ['Quarter 1', '2026-09-01'],
      ['Quarter 2', '2026-11-16'],
      ['Semester 2', '2027-02-01'],
      ['Quarter 3', '2027-02-01'],
      ['Quarter 4', '2027-04-19'],
    ]);
    const own = await server.registrar.get<PeopleReply>(`/schools/${body.schoolId}/people`);
    expect(own.body.people.map(({ cells, isOfRoster }) => [cells.number, cells.familyName, isOfRoster])).toEqual([
      ['', 'Registrar', false],
    ]);
    expect(calendar!.periods.find(({ id }) => id === body.periodId)!.name).toBe('Quarter 1');
    const line = await server.registrar.get<{ periods: unknown[] }>(`/schools/${body.schoolId}/term-line`);
    expect([line.status, line.body.periods.length]).toEqual([200, 7]);

    expect((await server.registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect([await schools(), await calendars(), await session()]).toEqual([[], [], before]);
    expect(await checkLog(server.registrar)).toMatchObject({ state: 'whole' });
  });

  it('opened by two at once has one school of a code, and one district', async () => {
    const both = await Promise.all(
      ['One', 'Two'].map((name) =>
        server.registrar.send<Problem>('POST', '/schools', request({ district: { name, timeZone: 'UTC' } })),
      ),
    );
    const [first, second] = both.map(({ status }) => status).toSorted();
    expect([first, second! >= 409]).toEqual([201, true]);
    const late = await server.registrar.send<Problem>(
      'POST',
      '/schools',
      request({ code: 'LATE', district: { name: 'Three', timeZone: 'UTC' } }),
    );
    expect([late.status, late.body.errors]).toEqual([
      422,
      [{ field: 'district', detail: 'nothing: the district has its name already' }],
    ]);
    const { change } = both.find(({ status }) => status === 201)!;
    expect((await server.registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
  });

  it('keeps a school that people were added to', async () => {
    const { body, change } = await server.registrar.send<OpenedSchoolReply>('POST', '/schools', request());
    const cells = {
      number: '',
      familyName: 'Rook',
      givenName: 'Bo',
      kind: 'staff',
      yearGroup: '',
      birthDate: '',
      email: '',
      preferredName: '',
      enteredOn: '',
      leftOn: '',
      pronoun: '',
    };
    const changes = [{ id: null, revision: '', cells }];
    await server.registrar.send('PUT', `/schools/${body.schoolId}/people`, { changes, removed: [] });
    const undone = await server.registrar.send<Problem>('POST', `/changes/${change}/undo`);
    expect([undone.status, undone.body.code, undone.body.detail]).toEqual([
      409,
      'in-use',
      expect.stringMatching(/^Skerry Upper School is used by 1 person/),
    ]);
    expect((await schools()).length).toBe(1);
  });
});

describe('another school', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startTestServer();
  });
  afterAll(() => server.stop());

  it.each<[string, object, object, string, string]>([
    ['a code that one has', { code: 'peu' }, {}, 'code', 'a code that no other school has'],
    ['a code with a space', { code: 'S K' }, {}, 'code', 'a code of 1 to 20 characters without a space'],
    ['no name', { name: '' }, {}, 'name', 'a name of 1 to 120 characters'],
    ['a year of a week', {}, { endsOn: '2026-09-08' }, 'year.endsOn', 'a day from 56 to 400 days after the first'],
    ['days the wrong way', {}, { endsOn: '2025-09-08' }, 'year.endsOn', 'a day from 56 to 400 days after the first'],
    [
      'a zone that is none',
      { district: { name: 'S', timeZone: 'Moon/Base' } },
      {},
      'district.timeZone',
      'a time zone such as Europe/London',
    ],
  ])('with %s is refused by that field', async (_what, over, year, field, detail) => {
    const registrar = await server.as('morwenna');
    const { status, body } = await registrar.send<Problem>('POST', '/schools', request(over, year));
    expect([status, body.errors]).toEqual([422, [{ field, detail }]]);
  });

  it('is opened beside the others, who notice nothing of it', async () => {
    const registrar = await server.as('morwenna');
    const before = (await registrar.get<CalendarReply[]>('/calendars')).body;
    const opened = await registrar.send<OpenedSchoolReply>('POST', '/schools', request({}, { division: 'trimesters' }));
    const after = (await registrar.get<CalendarReply[]>('/calendars')).body;
    expect(after.filter(({ school }) => school.id !== opened.body.schoolId)).toEqual(before);
    expect((await (await server.as('harun')).send('POST', '/schools', request())).status).toBe(403);
  });
});

describe('the names of a school and its district', () => {
  let server: TestServer;
  let registrar: TestClient;
  beforeAll(async () => {
    server = await startTestServer();
    registrar = await server.as('morwenna');
  });
  afterAll(() => server.stop());

  const names = async () => (await registrar.get<SchoolNamesReply>('/schools/1/names')).body;
  const rename = <Body = SchoolNamesReply>(request: object) => registrar.send<Body>('PUT', '/schools/1/names', request);

  it('stand on every screen at once, and go back by one step', async () => {
    const before = await names();
    expect(before).toMatchObject({ shortName: 'Upper School', district: { name: 'Port Elowen' } });
    const district = { name: 'Elowen Islands', timeZone: 'Atlantic/Faroe' };
    const renamed = await rename({ ...before, name: 'Harbour School', shortName: 'Harbour', code: 'HAR', district });
    expect([renamed.status, await names()]).toEqual([200, renamed.body]);
    const session = (await registrar.get<SessionReply>('/session')).body;
    expect([session.district, session.timeZone]).toEqual(['Elowen Islands', 'Atlantic/Faroe']);
    const schools = (await registrar.get<{ shortName: string }[]>('/schools')).body;
    expect(schools.map(({ shortName }) => shortName)).toContain('Harbour');
    await registrar.send('POST', `/changes/${renamed.change}/undo`);
    expect(await names()).toEqual(before);
    await checkLog(registrar);
  });

  it('that somebody changed meanwhile are not written over', async () => {
    const before = await names();
    const first = await rename({ ...before, shortName: 'Harbour' });
    const second = await rename<Problem>({ ...before, shortName: 'Anchor' });
    expect([second.status, second.body.code, (await names()).shortName]).toEqual([409, 'set-up-changed', 'Harbour']);
    await registrar.send('POST', `/changes/${first.change}/undo`);
  });

  it.each<[string, object, string]>([
    ['the code of another school', { code: 'gap' }, 'code'],
    ['a code with a space', { code: 'A B' }, 'code'],
    ['no short name', { shortName: '' }, 'shortName'],
    ['a zone that is none', { district: { name: 'Port Elowen', timeZone: 'Moon/Base' } }, 'district.timeZone'],
  ])('are not %s', async (_what, over, field) => {
    const before = await names();
    const { rows } = await server.database.pool.query<{ code: string }>('SELECT code FROM schools WHERE id = 2');
    const asked = {
      ...before,
      ...over,
      ...('code' in over && over.code === 'gap' && { code: rows[0]!.code.toLowerCase() }),
    };
    const { status, body } = await rename<Problem>(asked);
    expect([status, body.errors.map((error) => error.field)]).toEqual([422, [field]]);
    expect(await names()).toEqual(before);
  });

  it('are for a registrar of the district alone', async () => {
    const administrator = await server.as('ottilie');
    expect((await administrator.get('/schools/999/names')).status).toBe(404);
    expect((await (await server.as('harun')).send('PUT', '/schools/1/names', await names())).status).toBe(403);
  });
});
