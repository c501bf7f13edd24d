import { unzipSync, strFromU8 } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BookReply } from '#contract/calculation';
import type { ExchangeImportReply, ExchangeRowsReply } from '#contract/exchange';
import { startEmptyServer, startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

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
const accept = (client: TestClient, { id, previewId }: ExchangeImportReply) =>
  client.send('POST', `/exchange/imports/${id}/accept`, { previewId });
const rowsOf = async (client: TestClient, { id }: ExchangeImportReply, outcome: string) =>
  (await client.get<ExchangeRowsReply>(`/exchange/imports/${id}/rows?outcome=${outcome}`)).body.rows;

/** Scores with every flag, an assignment for one student alone, one that only adds, one that does not count. */
async function workForATerm(): Promise<void> {
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

describe('the district after a term of work', () => {
  it('comes into an empty Wombat and out again to the letter, in both versions', async () => {
    await workForATerm();
    const registrar = await demo.as('morwenna');
    for (const version of ['1.2', '1.1'] as const) {
      const zip = await exported(registrar, version);
      const read = await put(empty.registrar, zip);
      expect(await rowsOf(empty.registrar, read, 'refuse')).toEqual([]);
      expect(await rowsOf(empty.registrar, read, 'left')).toEqual([]);
      if (version === '1.2') expect((await accept(empty.registrar, read)).status).toBe(200);
      else for (const outcome of ['new', 'changed']) expect(await rowsOf(empty.registrar, read, outcome)).toEqual([]);
      const [ours, theirs] = [filesOf(zip), filesOf(await exported(empty.registrar, version))];
      for (const [name, lines] of Object.entries(ours)) expect({ [name]: theirs[name] }).toEqual({ [name]: lines });
    }
  });

  it('put in again there changes nothing', async () => {
    const zip = await exported(empty.registrar, '1.2');
    const again = await put(empty.registrar, zip);
    const { rows } = await empty.database.pool.query<{ fields: number }>(
      'SELECT count(*)::int AS fields FROM roster_fields',
    );
    expect(again.files.every(({ rows: all, counts }) => counts.same === all)).toBe(true);
    expect(rows).toEqual([{ fields: 0 }]);
  });
});
