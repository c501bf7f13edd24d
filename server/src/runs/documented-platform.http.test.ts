import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BookReply } from '#contract/calculation';
import type { MatchDecisionBody, MatchesReply } from '#contract/matching';
import type { PlatformReply } from '#contract/platforms';
import type { RunReply, RunRowsReply } from '#contract/runs';
import { PlatformsService } from '#server/platforms';
import { startDocumentedPlatform, type DocumentedPlatform } from '../../test/documented-platform.js';
import { openPeriod } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let platform: DocumentedPlatform;
let platformId: number;
let sectionId: number;
/** Family names of the section's students, in the order of the results. */
let names: string[];

/** A score of each student: three that are right, then what no score is. */
const scores = ['7.5', '10', '0', '0.30000000000000004', '1e-7', '"9,5"', 'null', '99999999'];

beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  const { rows } = await server.database.pool.query<{
    section: number;
    number: string;
    given: string;
    family: string;
  }>(`
    SELECT s.id AS section, p.sourced_id AS number, p.given_name AS given, p.family_name AS family FROM sections s
    JOIN courses c ON c.id = s.course_id JOIN enrollments e ON e.section_id = s.id AND e.withdrawn_on IS NULL
    JOIN people p ON p.id = e.student_id WHERE c.title = 'Tidal Ecology' AND s.number = 1 ORDER BY p.id`);
  sectionId = rows[0]!.section;
  names = rows.map(({ family, given }) => `${family}, ${given}`);
  const students = rows.map(({ number, given, family }, at) => ({
    sourcedId: `their-${at}`,
    identifier: number,
    givenName: given,
    familyName: family,
  }));
  const results = scores.map((resultScore, at) => ({ userId: `their-${at}`, resultScore, resultMaximum: 10 }));
  // One is out of something else than the column: 1 of 3 cannot be written out of 10.
  results.push({ userId: 'their-8', resultScore: '1', resultMaximum: 3 });
  platform = await startDocumentedPlatform({ students, results });
});
afterAll(async () => {
  await platform.stop();
  await server.stop();
});

async function settled(id: number): Promise<RunReply> {
  for (;;) {
    const { body } = await registrar.get<RunReply>(`/runs/${id}`);
    if (body.state !== 'working') return body;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
const rowsOf = async ({ id }: RunReply, query: string) =>
  (await registrar.get<RunRowsReply>(`/runs/${id}/rows?${query}`)).body.rows;

describe('a platform written after docs/formats.md', () => {
  it('is read whole, page after page, and its class and people are known', async () => {
    const { address, clientId, clientSecret } = platform;
    const request = { schoolId: 1, name: 'By the book', address, clientId, clientSecret };
    const { body } = await registrar.send<PlatformReply>('POST', '/platforms', request);
    platformId = body.id;
    await server.application.get(PlatformsService, { strict: false }).finished(platformId);
    const { body: kept } = await registrar.get<MatchesReply>(`/platforms/${platformId}/matches`);
    expect(kept.platform.problem).toBeNull();
    expect([kept.classes.map(({ title }) => title), kept.peopleFound, kept.people]).toEqual([
      ['Tidal Ecology (1)'],
      names.length,
      [],
    ]);
    const category = kept.targets.group.find(({ name }) => name === 'Homework')!.key;
    const group = kept.names.find(({ name }) => name === 'Homework')!.places.map(({ id }) => id);
    const decisions: MatchDecisionBody[] = [
      { kind: 'class', ids: [kept.classes[0]!.id], decision: 'joined', target: String(sectionId) },
      { kind: 'group', ids: group, decision: 'joined', target: category },
    ];
    expect((await registrar.send('POST', `/platforms/${platformId}/decisions`, { decisions })).status).toBe(200);
  });

  it('brings its work: each bad value is refused in its own row, with the reason, and the run goes on', async () => {
    const choices = { platformId, periodId: openPeriod, mode: 'keep', carriesWork: true, carriesTotals: false };
    const { body: begun } = await registrar.send<RunReply>('POST', '/runs', choices);
    const run = await settled(begun.id);
    expect(run).toMatchObject({ state: 'ready', problem: null });
    const refused = await rowsOf(run, 'outcome=refuse');
    expect(refused.map(({ name }) => name).toSorted()).toEqual(
      [names[3]!, names[4]!, names[5]!, names[7]!, names[8]!].toSorted(),
    );
    await registrar.send('POST', `/runs/${run.id}/carry-out`);
    expect(await settled(run.id)).toMatchObject({ state: 'ready', problem: null });
    const { body: book } = await registrar.get<BookReply>(`/grade-books/${sectionId}/${openPeriod}`);
    const log = book.assignments.find(({ name }) => name === 'Reading log')!;
    expect(log).toMatchObject({ possible: '10', dueOn: '2026-01-10' });
    const points = new Map(
      book.scores
        .filter(({ assignmentId }) => assignmentId === log.id)
        .map((score) => [score.enrollmentId, score.points]),
    );
    const written = book.students.flatMap(({ enrollmentId, student }) =>
      points.get(enrollmentId) == null ? [] : [[student, points.get(enrollmentId)]],
    );
    expect(written.toSorted()).toEqual(
      [
        [names[0], '7.5'],
        [names[1], '10'],
        [names[2], '0'],
      ].toSorted(),
    );
  });
});
