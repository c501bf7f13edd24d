import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { TermLineReply } from '#contract/calendar';
import type { CoursesReply } from '#contract/courses';
import type { TranscriptReply } from '#contract/transcripts';
import { PeriodViews } from '#server/period-view';
import { Transactions } from '#server/platform';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';
import { SetUpMark } from './set-up-mark.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

/** How many statements the database is asked while something is done. */
async function statementsOf(work: () => Promise<unknown>): Promise<string[]> {
  const { pool } = server.database;
  const asked: string[] = [];
  const query = pool.query.bind(pool) as (...given: unknown[]) => unknown;
  pool.query = ((...given: unknown[]) => {
    const [statement] = given as [string | { readonly text: string }];
    asked.push(typeof statement === 'string' ? statement : statement.text);
    return query(...given);
  }) as typeof pool.query;
  await work();
  pool.query = query as typeof pool.query;
  return asked.filter((text) => !/sessions?\b|"accounts"/.test(text)); // who asks is asked of the database each time
}

/** What a term line asks beside what counts when: it is read each time. */
const elsewhere = [
  'set_up_changes',
  'enrollments',
  'grades',
  'seals',
  'audit_certificates',
  'audit_findings',
  'audit_runs',
  'audit_settings',
  'audit_tasks',
  'finding_notes',
  'finding_notices',
  'nightly_audits',
  'jsonb_to_recordset',
  'work', // the queue, whose workers look for jobs whenever it is time
];

const termLine = async () => (await registrar.get<TermLineReply>('/schools/1/term-line')).body;
const nameOfQuarter2 = async () => (await termLine()).periods.find(({ id }) => id === 4)!.name;

describe('what counts when', () => {
  it('is read once while nobody changes the set-up: the term line then asks three queries', async () => {
    const before = await termLine();
    const tries: string[][] = []; // what the server does by itself at times may fall between them
    for (let count = 0; count < 5; count += 1)
      tries.push(await statementsOf(async () => expect((await termLine()).periods).toEqual(before.periods)));
    const asked = tries.reduce((fewest, each) => (each.length < fewest.length ? each : fewest));
    expect(asked.slice(3)).toEqual([]);
  });

  it.each([
    [
      'by SQL alone',
      () => server.database.pool.query(`UPDATE periods SET name = 'Winter quarter' WHERE id = 4`),
      'Winter quarter',
    ],
    [
      'in one statement of several',
      () =>
        server.database.pool.query(
          `UPDATE periods SET name = name WHERE id = 3; UPDATE periods SET name = 'Quarter two' WHERE id = 4`,
        ),
      'Quarter two',
    ],
  ])('is read anew once it was changed %s', async (_how, change, name) => {
    await termLine();
    await change();
    expect(await nameOfQuarter2()).toBe(name);
  });

  it('rests on no table whose changes are not noted', async () => {
    await server.database.pool.query('UPDATE courses SET title = title WHERE false'); // so that all of it is read anew
    const asked = await statementsOf(() => termLine());
    const read = new Set(
      asked.flatMap((text) =>
        [...text.matchAll(/\b(?:from|join) (?!lateral\b)"?([a-z_]+)"?/gi)].map(([, table]) => table!),
      ),
    );
    const { rows } = await server.database.pool.query<{ table: string }>(
      `SELECT c.relname AS table FROM pg_trigger t JOIN pg_class c ON c.oid = t.tgrelid WHERE t.tgname = 'note_set_up_change'`,
    );
    const noted = new Set(rows.map(({ table }) => table));
    const isElsewhere = (table: string) => elsewhere.includes(table);
    expect(read.size).toBeGreaterThan(15);
    expect([...read].filter((table) => !noted.has(table) && !isElsewhere(table))).toEqual([]);
  });

  it('is shown at once where it comes from the defaults of the courses', async () => {
    const { rows } = await server.database.pool.query<{ student: number }>(
      `SELECT e.student_id AS student FROM enrollments e JOIN sections s ON s.id = e.section_id
       JOIN courses c ON c.id = s.course_id WHERE c.school_id = 1 AND c.credits IS NULL LIMIT 1`,
    );
    const attempted = async () => {
      const { body } = await registrar.get<TranscriptReply>(`/students/${rows[0]!.student}/transcript`);
      return body.periods.flatMap(({ entries }) => entries.map(({ creditsTried }) => Number(creditsTried)));
    };
    const before = await attempted();
    const { body } = await registrar.get<CoursesReply>('/schools/1/courses?period=4');
    await registrar.send('PUT', '/schools/1/course-defaults?period=4', {
      revision: body.defaultsRevision,
      defaults: body.defaults.map((each) => (each.credits === null ? each : { ...each, credits: '3' })),
    });
    expect(await attempted()).not.toEqual(before);
  });

  it('inside a transaction is what it has written, and nobody else sees it before it is kept', async () => {
    const [transactions, views] = [
      server.application.get(Transactions, { strict: false }),
      server.application.get(PeriodViews, { strict: false }),
    ];
    const before = await nameOfQuarter2();
    const facts = await transactions.snapshot((queries) => views.factsOf(queries, 1));
    // What somebody writes who changed nothing of it rests on what everybody has.
    expect(await transactions.run((queries) => views.factsOf(queries, 1))).toBe(facts);
    const inside = await transactions.tryOut(async (queries) => {
      await queries.execute(`UPDATE periods SET name = 'Tried out' WHERE id = 4`);
      return (await views.factsOf(queries, 1)).periods.find(({ id }) => id === 4)!.name;
    });
    expect([inside, await nameOfQuarter2()]).toEqual(['Tried out', before]);
  });

  it('keeps its mark when the rows behind it are made one', async () => {
    const mark = server.application.get(SetUpMark, { strict: false });
    const now = () => mark.now(server.application.get(Transactions, { strict: false }).reading);
    const before = await now();
    expect(Number(before)).toBeGreaterThan(0);
    await mark.onApplicationBootstrap();
    const { rows } = await server.database.pool.query('SELECT count(*)::int AS n FROM set_up_changes');
    expect([await now(), rows]).toEqual([before, [{ n: 1 }]]);
    await server.database.pool.query(`UPDATE courses SET title = title WHERE false`);
    expect(Number(await now())).toBe(Number(before) + 1);
  });

  it('of a school that is not there is refused', async () => {
    const { status, body } = await registrar.get<{ detail: string }>('/schools/99/term-line');
    expect([status, body.detail]).toEqual([404, 'There is no school with number 99.']);
  });
});
