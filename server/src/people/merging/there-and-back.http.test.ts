import { afterAll, beforeAll, expect, it } from 'vitest';
import type { MergePreviewReply } from '#contract/people';
import type { MovePreviewReply } from '#contract/sections';
import { checkLog } from '../../../test/check-log.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const query = async <Row = { id: number }>(text: string, values: readonly unknown[] = []) =>
  (await server.database.pool.query(text, [...values])).rows as Row[];

/** All that a merge or a move may touch, row by row. */
const everything = async () => {
  const tables = ['people', 'enrollments', 'grades', 'scores', 'transcript_entries', 'platform_people', 'sections'];
  const found = await Promise.all(
    [...tables, 'section_co_teachers', 'merged_people', 'moved_work'].map((table) =>
      query(
        `SELECT md5(string_agg((to_jsonb(t) - 'created_at')::text, '|' ORDER BY t.id)) AS mark, '${table}' AS of FROM ${
          table === 'scores' ? '(SELECT *, assignment_id * 100000 + enrollment_id AS id FROM scores)' : table
        } t`,
      ),
    ),
  );
  return found.flat();
};

/** Draws the same numbers each time. */
function drawFrom(seed: number) {
  let state = seed;
  return (below: number) => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state % below;
  };
}

async function mergeTwo(draw: (below: number) => number): Promise<number | null> {
  const students = await query(`SELECT id FROM people WHERE kind = 'student' AND school_id = 1 ORDER BY id`);
  const pair = { keptId: students[draw(students.length)]!.id, goneId: students[draw(students.length)]!.id };
  const { body } = await registrar.send<MergePreviewReply>('POST', '/schools/1/duplicates/preview', pair);
  if (!body.obstacles || body.obstacles.length > 0) return null;
  const merged = await registrar.send('POST', '/schools/1/duplicates/merge', { ...pair, previewId: body.previewId });
  expect(merged.status).toBe(200);
  return merged.change;
}

async function moveSome(draw: (below: number) => number): Promise<number | null> {
  const sections = await query(
    `SELECT s.id FROM sections s JOIN courses c ON c.id = s.course_id WHERE c.school_id = 1 ORDER BY s.id`,
  );
  const [from, to] = [sections[draw(sections.length)]!.id, sections[draw(sections.length)]!.id];
  const seats = await query('SELECT id FROM enrollments WHERE section_id = $1 ORDER BY id LIMIT 3', [from]);
  const request = { enrollmentIds: seats.map(({ id }) => id), sectionId: to, enteredOn: '2026-01-12' };
  const { body } = await registrar.send<MovePreviewReply>('POST', '/schools/1/moves/preview', request);
  const can = (body.rows ?? []).filter(({ obstacle }) => obstacle === null).map(({ enrollmentId }) => enrollmentId);
  if (can.length === 0) return null;
  const wish = { ...request, enrollmentIds: can };
  const { body: again } = await registrar.send<MovePreviewReply>('POST', '/schools/1/moves/preview', wish);
  const moved = await registrar.send('POST', '/schools/1/moves', { ...wish, previewId: again.previewId });
  expect(moved.status).toBe(200);
  return moved.change;
}

it('merges and moves in any order, one upon the other, are undone one by one to the very rows that were there', async () => {
  const draw = drawFrom(2026);
  const marks = [await everything()];
  const changes: number[] = [];
  for (let tries = 0; changes.length < 8 && tries < 200; tries += 1) {
    const change = await (draw(2) === 0 ? mergeTwo(draw) : moveSome(draw));
    if (change === null) continue;
    changes.push(change);
    marks.push(await everything());
  }
  const kinds = await query<{ kind: string; count: number }>(
    `SELECT split_part(thing, ' ', 1) AS kind, count(*)::int AS count FROM change_log WHERE change_id = ANY($1) GROUP BY 1 ORDER BY 1`,
    [changes],
  );
  expect([changes.length, kinds.map(({ kind }) => kind)]).toEqual([
    8,
    ['enrollment', 'merged-person', 'moved-work', 'person'],
  ]);
  expect(new Set(marks.map((mark) => JSON.stringify(mark))).size).toBe(9);
  for (const [at, change] of [...changes.entries()].toReversed()) {
    const undone = await registrar.send('POST', `/changes/${change}/undo`);
    expect([at, undone.status, undone.body]).toMatchObject([at, 200, {}]);
    expect(await everything()).toEqual(marks[at]);
  }
  expect(await checkLog(registrar)).toMatchObject({ state: 'whole' });
});
