import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { personFields, personHeadings, type PersonCells } from '#core/people';
import type { SavedRows } from '#contract/cell-tables';
import type { ExchangeImportReply } from '#contract/exchange';
import type { PeopleImportReply, PeopleReply, PersonRowReply } from '#contract/people';
import type { Problem } from '#contract/problems';
import type { SearchHitReply } from '#contract/search';
import type { StudentRowReply } from '#contract/transcripts';
import { startEmptyServer, startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const cellsOf = (over: Partial<PersonCells> = {}): PersonCells => ({
  number: '',
  familyName: 'Skerry',
  givenName: 'Ada',
  kind: 'student',
  yearGroup: '10',
  birthDate: '',
  email: '',
  preferredName: '',
  enteredOn: '',
  leftOn: '',
  pronoun: '',
  ...over,
});
const people = async () => (await registrar.get<PeopleReply>('/schools/1/people')).body.people;
const added = (over: Partial<PersonCells>) => ({ id: null, revision: '', cells: cellsOf(over) });
const change = ({ id, revision, cells }: PersonRowReply, over: Partial<PersonCells>) => ({
  id,
  revision,
  cells: { ...cells, ...over },
});
const save = <Body = PeopleReply & SavedRows>(changes: readonly object[], removed: readonly number[] = []) =>
  registrar.send<Body>('PUT', '/schools/1/people', { changes, removed });
const undo = (number: number | null) => registrar.send('POST', `/changes/${number}/undo`);
const named = (of: readonly PersonRowReply[], familyName: string) =>
  of.filter(({ cells }) => cells.familyName === familyName);

describe('the people of a school', () => {
  it('are its students and staff, by name, those of a roster marked', async () => {
    const all = await people();
    const names = all.map(({ cells }) => cells.familyName);
    expect(names).toEqual(names.toSorted((a, b) => (a < b ? -1 : a > b ? 1 : 0)));
    expect(new Set(all.map(({ cells }) => cells.kind))).toEqual(new Set(['student', 'staff']));
    expect(all.some(({ sections }) => sections > 0)).toBe(true);
  });

  it('are added, changed and deleted together, in one change that goes back as a whole', async () => {
    const before = await people();
    const first = before.find(({ cells }) => cells.kind === 'student')!;
    const saved = await save([
      added({ familyName: 'Quay', number: 'Z1', birthDate: '17 May 2010' }),
      added({ familyName: 'Quay', givenName: 'Bo', kind: 'staff', yearGroup: '' }),
      change(first, { yearGroup: '13' }),
    ]);
    expect(saved.status).toBe(200);
    expect(named(saved.body.people, 'Quay').map(({ cells, isOfRoster }) => [cells, isOfRoster])).toEqual([
      [cellsOf({ familyName: 'Quay', number: 'Z1', birthDate: '2010-05-17' }), false],
      [cellsOf({ familyName: 'Quay', givenName: 'Bo', kind: 'staff', yearGroup: '' }), false],
    ]);
    const became = saved.body.saved.map(({ id, revision }) => [
      revision === saved.body.people.find((person) => person.id === id)!.revision,
      saved.body.people.find((person) => person.id === id)!.cells.givenName,
    ]);
    expect(became).toEqual([
      [true, 'Ada'],
      [true, 'Bo'],
      [true, first.cells.givenName],
    ]);
    expect((await undo(saved.change)).status).toBe(200);
    expect(await people()).toEqual(before);
  });

  it('who were deleted come back as they were, a roster knowing them by the same id', async () => {
    await server.database.pool.query(
      `INSERT INTO people (sourced_id, kind, school_id, given_name, family_name, email) VALUES ('r-77', 'student', 1, 'Rae', 'Quenby', '')`,
    );
    const [quenby] = named(await people(), 'Quenby');
    expect([quenby!.cells.number, quenby!.isOfRoster]).toEqual(['r-77', true]);
    const { change: number, body } = await save([], [quenby!.id]);
    expect(named(body.people, 'Quenby')).toEqual([]);
    await undo(number);
    expect(named(await people(), 'Quenby')).toEqual([quenby]);
    const { rows } = await server.database.pool.query(
      `SELECT sourced_id, number FROM people WHERE family_name = 'Quenby'`,
    );
    expect(rows).toEqual([{ sourced_id: 'r-77', number: null }]);
  });

  it('that others changed meanwhile are told, and nothing is saved', async () => {
    const [, person] = await people();
    const [one, other] = await Promise.all([
      save<Problem>([change(person!, { givenName: 'One' })]),
      save<Problem>([change(person!, { givenName: 'Other' })]),
    ]);
    expect([one.status, other.status].toSorted()).toEqual([200, 409]);
    expect([one, other].find(({ status }) => status === 409)!.body.code).toBe('changed-meanwhile');
    await undo(one.change ?? other.change);
  });

  it.each<[string, readonly Partial<PersonCells>[], string, string]>([
    ['no name', [{ familyName: ' ' }], 'changes.0.cells.familyName', 'this cannot be empty'],
    ['a kind that is none', [{ kind: 'parrot' }], 'changes.0.cells.kind', 'one of student, staff'],
    ['a day in figures', [{ birthDate: '3/4/2010' }], 'changes.0.cells.birthDate', 'a day such as 2010-05-17'],
    [
      'a birth that is yet to come',
      [{ birthDate: '2026-01-22' }],
      'changes.0.cells.birthDate',
      'a day of birth that has been; this one is yet to come',
    ],
    [
      'a last day before the first',
      [{ enteredOn: '2025-09-01', leftOn: '2025-08-31' }],
      'changes.0.cells.leftOn',
      'a day that is not before the first one',
    ],
    [
      'a number of two',
      [{ number: 'Q1' }, { number: 'q1' }],
      'changes.1.cells.number',
      'a number that no other student has',
    ],
  ])('with %s are refused, cell by cell', async (_what, rows, field, detail) => {
    const { status, body } = await save<Problem>(rows.map(added));
    expect([status, body.code, body.errors]).toEqual([422, 'people-faulty', [{ field, detail }]]);
  });

  it('a number that a student of another school has is refused', async () => {
    const other = (await registrar.get<PeopleReply>('/schools/2/people')).body.people;
    const { number } = other.find(({ cells }) => cells.kind === 'student' && cells.number !== '')!.cells;
    expect((await save<Problem>([added({ number })])).body.errors).toEqual([
      { field: 'changes.0.cells.number', detail: 'a number that no other student has' },
    ]);
  });

  it('get no number that somebody else got at the same moment, or since they were deleted', async () => {
    const both = await Promise.all(
      ['Quoin', 'Quilt'].map((familyName) => save<Problem>([added({ familyName, number: 'Q77' })])),
    );
    const statuses = both.map(({ status }) => status).toSorted();
    expect([statuses[0], statuses[1]! >= 409]).toEqual([200, true]);
    const first = both.find(({ status }) => status === 200)!;
    const owner = (await people()).find(({ cells }) => cells.number === 'Q77')!;
    const gone = await save([], [owner.id]);
    const second = await save([added({ familyName: 'Quiver', number: 'q77' })]);
    const back = await registrar.send<Problem>('POST', `/changes/${gone.change}/undo`);
    expect([back.status, back.body.code]).toEqual([409, 'number-taken']);
    for (const made of [second, gone, first]) expect((await undo(made.change)).status).toBe(200);
  });

  it('who sit in a section, teach one or sign in are not deleted', async () => {
    const all = await people();
    for (const kind of ['student', 'staff']) {
      const { id } = all.find(({ cells, sections }) => cells.kind === kind && sections > 0)!;
      const { status, body } = await save<Problem>([], [id]);
      expect([status, body.code, body.detail]).toEqual([
        409,
        'in-use',
        expect.stringMatching(/is used by \d+ section/),
      ]);
    }
  });

  it('who left are told of while they have seats beyond that day', async () => {
    const { rows } = await server.database.pool.query<{ id: number; seats: number }>(`
      SELECT p.id, count(*)::int AS seats FROM people p JOIN enrollments e ON e.student_id = p.id AND e.withdrawn_on IS NULL
      JOIN sections s ON s.id = e.section_id AND s.period_id = 1 WHERE p.school_id = 1 GROUP BY p.id ORDER BY p.id LIMIT 1`);
    const seats = async (leftOn: string) => {
      await server.database.pool.query('UPDATE people SET left_on = $2 WHERE id = $1', [rows[0]!.id, leftOn]);
      const { people } = (await registrar.get<PeopleReply>('/schools/1/people')).body;
      return people.find(({ id }) => id === rows[0]!.id)!.seatsAfterLeaving;
    };
    expect(await seats('2026-03-31')).toBeGreaterThanOrEqual(rows[0]!.seats);
    // The year was over.
    expect(await seats('2026-06-30')).toBe(0);
    await server.database.pool.query('UPDATE people SET left_on = NULL WHERE id = $1', [rows[0]!.id]);
  });

  it('stay students as long as they sit in sections, and staff as long as they teach', async () => {
    const all = await people();
    for (const [kind, other] of [
      ['student', 'staff'],
      ['staff', 'student'],
    ] as const) {
      const one = all.find(({ cells, sections }) => cells.kind === kind && sections > 0)!;
      const { status, body } = await save<Problem>([change(one, { kind: other })]);
      expect([status, body.code]).toEqual([409, 'in-use']);
    }
    const { body, change: first } = await save([added({ familyName: 'Quirk' })]);
    const { status, change: second } = await save([change(named(body.people, 'Quirk')[0]!, { kind: 'staff' })]);
    expect(status).toBe(200);
    for (const made of [second, first]) expect((await undo(made)).status).toBe(200);
  });

  it('who were made here without a number show none, on whatever screen', async () => {
    const { change: number } = await save([added({ familyName: 'Quixby' })]);
    const students = await registrar.get<StudentRowReply[]>('/student-list?school=1&period=4&text=Quixby');
    const hits = await registrar.get<SearchHitReply[]>('/search?text=Quixby');
    expect([students.body.map(({ studentNumber }) => studentNumber), hits.body.map(({ detail }) => detail)]).toEqual([
      [''],
      [''],
    ]);
    await undo(number);
  });

  it('who are matched on a platform are not deleted', async () => {
    const { change: number, body } = await save([added({ familyName: 'Quorn' })]);
    const [quorn] = named(body.people, 'Quorn');
    const { rows } = await server.database.pool.query<{ id: number }>(
      `INSERT INTO learning_platforms (school_id, name, address, client_id, client_secret)
       VALUES (1, 'Quay', 'http://127.0.0.1:9', 'x', 'y') RETURNING id`,
    );
    await server.database.pool.query(
      `INSERT INTO platform_people (platform_id, sourced_id, given_name, family_name, student_id) VALUES ($1, 'q', 'Q', 'Q', $2)`,
      [rows[0]!.id, quorn!.id],
    );
    const { status, body: refused } = await save<Problem>([], [quorn!.id]);
    expect([status, refused.detail]).toEqual([409, expect.stringMatching(/is used by 1 match/)]);
    await server.database.pool.query('DELETE FROM platform_people WHERE platform_id = $1', [rows[0]!.id]);
    await server.database.pool.query('DELETE FROM learning_platforms WHERE id = $1', [rows[0]!.id]);
    await undo(number);
  });

  it('of another school are not there', async () => {
    const [other] = (await registrar.get<PeopleReply>('/schools/2/people')).body.people.filter(
      ({ cells }) => cells.kind === 'student',
    );
    expect((await save<Problem>([change(other!, { givenName: 'X' })])).status).toBe(404);
    expect((await save<Problem>([], [other!.id])).status).toBe(404);
  });

  it('are no business of a teacher', async () => {
    const teacher = await server.as('harun');
    expect((await teacher.get('/schools/1/people')).status).toBe(403);
  });
});

describe('a file of people', () => {
  const plan = (csv: string) => {
    const form = new FormData();
    form.set('file', new Blob([csv]), 'people.csv');
    return registrar.send<PeopleImportReply & Problem>('POST', '/schools/1/people/import', form);
  };

  it('that was written here is all the same', async () => {
    const { body } = await registrar.get<Uint8Array>('/schools/1/people/export?type=csv', 'bytes');
    const { body: planned } = await plan(Buffer.from(body).toString());
    expect(new Set(planned.rows.map(({ outcome }) => outcome))).toEqual(new Set(['same']));
    expect(planned.rows).toHaveLength((await people()).length);
  });

  it('knows students by their number, and is saved like what is typed', async () => {
    const student = (await people()).find(({ cells }) => cells.kind === 'student')!;
    const { body } = await plan(
      `Pupil number,Surname,First name,Role,Year group\n${student.cells.number},Renamed,Ada,student,12\nNEW-1,Zoar,Eve,student,9\n`,
    );
    expect(body.rows.map(({ id, outcome }) => [id, outcome])).toEqual([
      [student.id, 'changed'],
      [null, 'new'],
    ]);
    const saved = await save(
      body.rows.map(({ id, cells }) => ({ id, revision: id === null ? '' : student.revision, cells })),
    );
    expect(named(saved.body.people, 'Zoar')).toHaveLength(1);
    await undo(saved.change);
  });

  it('without columns of names is refused', async () => {
    const { status, body } = await plan('a,b\n1,2\n');
    expect([status, body.code]).toEqual([422, 'columns-of-names-missing']);
  });
});

it('columns have the names that files are read by', () =>
  expect(personFields.map((field) => personHeadings[field])).toEqual([
    'Number',
    'Family name',
    'Given name',
    'Kind',
    'Year',
    'Born',
    'E-mail',
    'Preferred name',
    'Entered',
    'Left',
    'Pronoun',
  ]));

it('who were made here go out with a roster and come into an empty Wombat as they were', async () => {
  const quern = {
    familyName: 'Quern',
    preferredName: 'Quinn',
    number: 'Q9',
    birthDate: '2010-05-17',
    enteredOn: '2024-09-02',
    leftOn: '2026-01-16',
  };
  const { change: number } = await save([added(quern)]);
  // Of what does not concern people a part goes along.
  await server.database.pool.query('DELETE FROM scores WHERE assignment_id % 10 <> 0');
  const zip = (await registrar.get<Uint8Array>('/exchange/export?version=1.2', 'bytes')).body;
  await undo(number);
  const empty = await startEmptyServer();
  try {
    const form = new FormData();
    form.set('file', new Blob([Buffer.from(zip)]), 'district.zip');
    const { body: read } = await empty.registrar.send<ExchangeImportReply>('POST', '/exchange/imports', form);
    const { id, previewId } = read;
    await empty.registrar.send('POST', `/exchange/imports/${id}/accept`, { previewId });
    const status = async () => (await empty.registrar.get<ExchangeImportReply>(`/exchange/imports/${id}`)).body.status;
    await expect.poll(status, { timeout: 100_000 }).toBe('accepted');
    const { body } = await empty.registrar.get<PeopleReply>('/schools/1/people');
    expect(named(body.people, 'Quern').map(({ cells }) => cells)).toEqual([cellsOf(quern)]);
  } finally {
    await empty.stop();
  }
});
