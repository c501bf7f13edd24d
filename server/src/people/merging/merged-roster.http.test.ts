import { afterAll, beforeAll, expect, it } from 'vitest';
import type { ExchangeImportReply, ExchangeRowsReply } from '#contract/exchange';
import type { MergePreviewReply } from '#contract/people';
import type { Problem } from '#contract/problems';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const query = async <Row>(text: string, values: readonly unknown[] = []) =>
  (await server.database.pool.query(text, [...values])).rows as Row[];

async function put(zip: Uint8Array): Promise<ExchangeImportReply> {
  const form = new FormData();
  form.append('file', new File([Buffer.from(zip)], 'roster.zip'));
  return (await registrar.send<ExchangeImportReply>('POST', '/exchange/imports', form)).body;
}
/** How many rows of each file come to what, but for those that are the same. */
const outcomesOf = ({ files }: ExchangeImportReply) =>
  files.flatMap(({ file, counts }) =>
    Object.entries(counts).flatMap(([outcome, count]) =>
      outcome === 'same' || outcome === 'left' || count === 0 ? [] : [`${file} ${outcome} ${count}`],
    ),
  );

it('a roster that still has both of two merged records brings nobody back, and its seats count for the one kept', async () => {
  // A tenth of the scores says as much, in less time.
  await query('DELETE FROM scores WHERE assignment_id % 10 <> 0');
  const zip = (await registrar.get<Uint8Array>('/exchange/export?version=1.2', 'bytes')).body;
  expect(outcomesOf(await put(zip))).toEqual([]);
  const [one, other] = await query<{ id: number; sourced_id: string }>(
    `SELECT id, sourced_id FROM people p WHERE kind = 'student' AND school_id = 1 AND NOT EXISTS (
       SELECT 1 FROM enrollments e JOIN enrollments o USING (section_id) WHERE e.student_id = p.id
         AND o.student_id = (SELECT min(id) FROM people WHERE kind = 'student' AND school_id = 1))
       OR id = (SELECT min(id) FROM people WHERE kind = 'student' AND school_id = 1) ORDER BY id LIMIT 2`,
  );
  const seats = await query('SELECT id FROM enrollments WHERE student_id = ANY($1) ORDER BY id', [
    [one!.id, other!.id],
  ]);
  const pair = { keptId: one!.id, goneId: other!.id };
  const { previewId } = (await registrar.send<MergePreviewReply>('POST', '/schools/1/duplicates/preview', pair)).body;
  const merged = await registrar.send('POST', '/schools/1/duplicates/merge', { ...pair, previewId });
  expect(merged.status).toBe(200);

  const again = await put(zip);
  expect(outcomesOf(again)).toEqual([]);
  const { rows } = (
    await registrar.get<ExchangeRowsReply>(`/exchange/imports/${again.id}/rows?outcome=left&file=users`)
  ).body;
  expect(rows.flatMap(({ faults }) => faults.map(({ says }) => says)).join()).toMatch(/was merged into another one/);
  const accepted = await registrar.send<Problem>('POST', `/exchange/imports/${again.id}/accept`, {
    previewId: again.previewId,
  });
  expect(accepted.body.code).toBe('nothing-to-write');
  expect(await query('SELECT 1 FROM people WHERE sourced_id = $1', [other!.sourced_id])).toEqual([]);
  expect(await query('SELECT id FROM enrollments WHERE student_id = $1 ORDER BY id', [one!.id])).toEqual(seats);

  await registrar.send('POST', `/changes/${merged.change}/undo`);
  expect(outcomesOf(await put(zip))).toEqual([]);
  expect(await query('SELECT 1 FROM people WHERE sourced_id = $1', [other!.sourced_id])).toHaveLength(1);
});
