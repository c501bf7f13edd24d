import { unzipSync, strFromU8 } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BookReply } from '#contract/calculation';
import type { ExchangeImportReply, ExchangeRowsReply } from '#contract/exchange';
import { startEmptyServer, startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';
import { writtenZip } from '../../test/written-zip.js';
import { ExchangeImportsRepository } from './exchange-imports.repository.js';
import { ExchangePlans } from './exchange-plans.js';
import { ExchangeWorker } from './exchange-worker.js';

let demo: TestServer;
let empty: Awaited<ReturnType<typeof startEmptyServer>>;
beforeAll(async () => {
  [demo, empty] = [await startTestServer(), await startEmptyServer()];
});
afterAll(() => Promise.all([demo.stop(), empty.stop()]));

const exported = async (client: TestClient, version: '1.1' | '1.2') =>
  Buffer.from((await client.get<Uint8Array>(`/exchange/export?version=${version}`, 'bytes')).body);
const filesOf = (zip: Buffer) =>
  Object.fromEntries(Object.entries(unzipSync(zip)).map(([name, bytes]) => [name, strFromU8(bytes).split('\r\n')]));
async function put(client: TestClient, zip: Buffer): Promise<ExchangeImportReply> {
  const form = new FormData();
  form.append('file', new File([zip as never], 'district.zip'));
  return (await client.send<ExchangeImportReply>('POST', '/exchange/imports', form)).body;
}
async function accept(client: TestClient, { id, previewId }: ExchangeImportReply): Promise<ExchangeImportReply> {
  expect((await client.send('POST', `/exchange/imports/${id}/accept`, { previewId })).status).toBe(200);
  return (await writtenZip(client, id)).body;
}
const rowsOf = async (client: TestClient, { id }: ExchangeImportReply, outcome: string) =>
  (await client.get<ExchangeRowsReply>(`/exchange/imports/${id}/rows?outcome=${outcome}`)).body.rows;

/** Scores with every flag, an assignment for one student alone, one that only adds, one that does not count. */
async function workForATerm(): Promise<void> {
  // Of most sections a tenth of the scores says as much, in a tenth of the time.
  await demo.database.pool.query('DELETE FROM scores WHERE assignment_id % 10 <> 0');
  await demo.database.pool.query(`
    INSERT INTO section_co_teachers (section_id, person_id) SELECT s.id, (SELECT max(p.id) FROM people p
      WHERE p.kind = 'staff' AND p.school_id = c.school_id AND p.id <> s.teacher_id)
    FROM sections s JOIN courses c ON c.id = s.course_id WHERE s.id % 9 = 0`);
  await demo.database.pool.query(`
    UPDATE people SET entered_on = '2024-09-02', left_on = CASE WHEN id % 14 = 0 THEN date '2026-06-12' END WHERE id % 7 = 0`);
  const teacher = await demo.as('harun');
  const { rows } = await demo.database.pool.query<{ section: number }>(`
    SELECT min(s.id) AS section FROM sections s JOIN people p ON p.id = s.teacher_id JOIN accounts a ON a.person_id = p.id
    JOIN assignments w ON w.section_id = s.id AND w.period_id = 4 WHERE a.username = 'harun'`);
  const path = `/grade-books/${rows[0]!.section}/4`;
  const { body: book } = await teacher.get<BookReply>(path);
  const [one, other] = book.students.filter(({ withdrawnOn }) => withdrawnOn === null);
  const plain = {
    categoryId: book.categories[0]!.id,
    possible: '12.5',
    dueOn: '2025-11-20',
    isExtra: false,
    isCounted: true,
    isPublished: true,
    givenTo: null,
    alsoIn: [],
  };
  for (const assignment of [
    { ...plain, name: 'For one alone, "quoted"', givenTo: [one!.enrollmentId] },
    { ...plain, name: "+1 for a sailor's knot", isExtra: true, possible: '0' },
    { ...plain, name: 'Not counted 🌊', isCounted: false, isPublished: false },
  ])
    expect((await teacher.send('POST', `${path}/assignments`, assignment)).status).toBe(201);
  const { body: now } = await teacher.get<BookReply>(path);
  const flags = ['missing', 'late', 'incomplete', 'exempt', 'absent', 'collected', null] as const;
  const versionOf = (assignmentId: number, enrollmentId: number) =>
    now.scores.find((score) => score.assignmentId === assignmentId && score.enrollmentId === enrollmentId)?.version ??
    0;
  const forAll = now.assignments.filter(({ givenTo }) => givenTo === null);
  const changes = forAll.slice(0, flags.length).flatMap(({ id: assignmentId, possible }, at) =>
    [one!, other!].map(({ enrollmentId }, student) => ({
      assignmentId,
      enrollmentId,
      version: versionOf(assignmentId, enrollmentId),
      points: student === 0 || flags[at] === null ? possible : null,
      flag: flags[at]!,
    })),
  );
  expect(await teacher.send('PUT', `${path}/scores`, { changes })).toMatchObject({ status: 200 });
  await demo.database.pool.query(`
    UPDATE enrollments SET withdrawn_on = '2026-01-09' WHERE id = ${other!.enrollmentId};
    UPDATE people SET year_group = NULL, email = '' WHERE id = ${one!.studentId};
    UPDATE people SET number = '000' || id WHERE kind = 'student'`);
}

/** How far a zip is, each time that it is asked while it is being written. */
async function progressOf(client: TestClient, id: number): Promise<number[]> {
  const seen: number[] = [];
  for (;;) {
    const { body } = await client.get<ExchangeImportReply>(`/exchange/imports/${id}`);
    if (body.status !== 'accepting') return seen;
    seen.push(body.stepsDone / body.stepCount);
  }
}

describe('the district after a term of work', () => {
  it('comes into an empty Wombat and out again to the letter, and put in again there changes nothing', async () => {
    await workForATerm();
    const registrar = await demo.as('morwenna');
    const zip = await exported(registrar, '1.2');
    const read = await put(empty.registrar, zip);
    for (const outcome of ['refuse', 'left']) expect(await rowsOf(empty.registrar, read, outcome)).toEqual([]);
    expect(await accept(empty.registrar, read)).toMatchObject({ status: 'accepted', problem: null });
    const theirs = await exported(empty.registrar, '1.2');
    expectSame(theirs, zip);
    const again = await put(empty.registrar, theirs);
    expect(again.files.every(({ rows, counts }) => counts.same === rows)).toBe(true);
  });

  it('goes out in the older version from both alike, and nothing had to be kept beside', async () => {
    expectSame(await exported(empty.registrar, '1.1'), await exported(await demo.as('morwenna'), '1.1'));
    const { rows } = await empty.database.pool.query('SELECT * FROM roster_fields');
    expect(rows).toEqual([]);
  });
});

describe('a zip that is being written', () => {
  it('lets others be answered meanwhile, who see how far it is', async () => {
    await empty.database.pool.query('DELETE FROM scores; DELETE FROM assignments');
    const { id, previewId } = await put(empty.registrar, await exported(await demo.as('morwenna'), '1.2'));
    await empty.registrar.send('POST', `/exchange/imports/${id}/accept`, { previewId });
    const seen = await progressOf(empty.registrar, id);
    expect(seen.filter((share) => share > 0 && share < 1).length).toBeGreaterThan(1);
    expect(seen.toSorted((one, other) => one - other)).toEqual(seen);
  });

  it('whose thread was stopped is looked at again in another one', async () => {
    const { id } = await put(empty.registrar, await exported(empty.registrar, '1.1'));
    const kept = await empty.application.get(ExchangeImportsRepository).byIdOrThrow(empty.database.queries, id);
    const { thread } = await empty.application.get(ExchangePlans).show(kept);
    await thread.close();
    const read = await empty.registrar.get<ExchangeImportReply>(`/exchange/imports/${id}`);
    expect([read.status, read.body.files.every(({ rows, counts }) => counts.same === rows)]).toEqual([200, true]);
  });

  it('is finished by the next server where one fell in the middle of it', async () => {
    const whole = await exported(await demo.as('morwenna'), '1.2');
    await empty.database.pool.query('DELETE FROM scores WHERE enrollment_id % 2 = 0');
    const { id } = await put(empty.registrar, whole);
    await empty.database.pool.query(`
      UPDATE exchange_imports SET status = 'accepting', worker = 'one that fell', worker_until = now(), counts = '[]',
        step_count = 10, steps_done = 5 WHERE id = ${id}`);
    await empty.application.get(ExchangeWorker).work.begin(id);
    expect((await writtenZip(empty.registrar, id)).body).toMatchObject({ status: 'accepted', problem: null });
    expectSame(await exported(empty.registrar, '1.2'), whole);
  });

  it('stops where a period is sealed in between, and says so', async () => {
    await empty.database.pool.query('DELETE FROM scores WHERE enrollment_id % 2 = 0');
    const { id, previewId } = await put(empty.registrar, await exported(await demo.as('morwenna'), '1.2'));
    await empty.database.pool.query(`
      INSERT INTO audit_runs (school_id, period_id, started_by, started_at, grades_checked, milliseconds, rules)
        SELECT school_id, id, (SELECT min(id) FROM people), now(), 0, 0, '[]' FROM periods WHERE name = 'Quarter 2' LIMIT 1;
      CREATE FUNCTION seal_it() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
        INSERT INTO seals (school_id, period_id, audit_run_id, sealed_by, sealed_at, entry_count)
          SELECT school_id, period_id, id, started_by, now(), 0 FROM audit_runs LIMIT 1 ON CONFLICT DO NOTHING; RETURN NULL; END $$;
      CREATE TRIGGER seal_it AFTER UPDATE ON exchange_imports FOR EACH ROW WHEN (OLD.steps_done = 0 AND NEW.steps_done > 0)
        EXECUTE FUNCTION seal_it()`);
    await empty.registrar.send('POST', `/exchange/imports/${id}/accept`, { previewId });
    const { body } = await writtenZip(empty.registrar, id);
    expect(body).toMatchObject({
      status: 'read',
      problem: expect.stringContaining('A period was sealed while the rows were being written'),
    });
  });
});

/** Fails with the first line that differs. */
function expectSame(one: Buffer, other: Buffer): void {
  const [ours, theirs] = [filesOf(one), filesOf(other)];
  expect(Object.keys(theirs)).toEqual(Object.keys(ours));
  for (const [name, lines] of Object.entries(ours)) {
    const at = lines.findIndex((line, index) => line !== theirs[name]![index]);
    expect({ name, line: theirs[name]![at], count: theirs[name]!.length }).toEqual({
      name,
      line: lines[at],
      count: lines.length,
    });
  }
}
