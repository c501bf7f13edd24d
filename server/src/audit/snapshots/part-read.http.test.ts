import { afterAll, beforeAll, expect, it } from 'vitest';
import type { GradeFact, Snapshot } from '#core/audit';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { Transactions, type Queries } from '#server/platform';
import { startTestServer, type TestServer } from '../../../test/test-server.js';
import { PartLooker } from '../runs/part-looker.service.js';
import { snapshotOf, type PartRead } from './part-read.js';
import { SnapshotService } from './snapshot.service.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

const of = <Kind>(kind: new (...given: never[]) => Kind): Kind => server.application.get(kind, { strict: false });
const inDatabase = async <Row extends object>(text: string, values: unknown[] = []) =>
  (await server.database.pool.query<Row>(text, values)).rows;
const inSnapshot = <Read>(work: (queries: Queries) => Promise<Read>) => of(Transactions).snapshot(work);

/** Grades apart from the order in which they come, and from what is told of the moment. */
const parted = ({ now: _now, grades, ...rest }: Snapshot) => ({
  ...rest,
  grades: grades.toSorted((a, b) => a.item.id - b.item.id || a.enrollmentId - b.enrollmentId),
});

it('what a thread makes of a part is what the server sees of it, in every period', async () => {
  let [looked, judged] = [0, 0];
  for (const { id } of await inDatabase<{ id: number }>('SELECT id FROM periods ORDER BY id')) {
    const period = await of(PeriodsRepository).byIdOrThrow(of(Transactions).reading, id);
    const { running } = await inSnapshot((queries) => of(SnapshotService).sectionsOf(queries, period));
    for (let at = 0; at < running.length; at += 40) {
      const some = running.slice(at, at + 40);
      const { whole, part } = await inSnapshot(async (queries) => ({
        whole: (await of(SnapshotService).ofAudit(queries, period, some)).snapshot,
        part: await of(SnapshotService).partOf(queries, period, some),
      }));
      const seen = snapshotOf(structuredClone(part));
      if ('missing' in seen) throw new Error(`${seen.missing.length} versions are missing`);
      expect(parted(seen)).toEqual(parted(whole));
      looked += some.length;
      judged += whole.grades.length;
    }
  }
  expect(looked).toBeGreaterThan(1_000);
  expect(judged).toBeGreaterThan(10_000);
});

it('a part that needs versions of scales which are not at hand is looked at with them', async () => {
  const period = await of(PeriodsRepository).byIdOrThrow(of(Transactions).reading, 4);
  const { running } = await inSnapshot((queries) => of(SnapshotService).sectionsOf(queries, period));
  const part = await inSnapshot((queries) => of(SnapshotService).partOf(queries, period, running.slice(0, 8)));
  const bare: PartRead = { ...part, ground: { ...part.ground, versions: new Map() } };
  expect(snapshotOf(bare)).toEqual({ missing: expect.arrayContaining([expect.any(Number)]) as unknown });
  const [full, completed] = [await of(PartLooker).look(part, new Map()), await of(PartLooker).look(bare, new Map())];
  expect(full.gradeCount).toBeGreaterThan(100);
  expect(completed).toEqual(full);
});

it('what a composite comes to does not rest on the scale that somebody else’s grade was posted under', async () => {
  const [semesterGrade, semester1] = [102, 2];
  const period = await of(PeriodsRepository).byIdOrThrow(of(Transactions).reading, semester1);
  await inDatabase(`UPDATE report_items SET count_by = 'points' WHERE id = $1`, [semesterGrade]);
  const ofSemester = (grades: readonly GradeFact[]) => grades.filter(({ item }) => item.id === semesterGrade);
  const read = (only: readonly number[]) =>
    inSnapshot(async (queries) =>
      ofSemester((await of(SnapshotService).ofPeriod(queries, period, only)).snapshot.grades),
    );
  const all = await read((await running(period)).slice(0, 30));
  const labelled = all.filter(({ proposal }) => proposal?.label);
  const { sectionId } = labelled[0]!;
  const before = await read([sectionId]);
  const last = before.at(-1)!;
  const [other] = await inDatabase<{ id: number }>(
    `SELECT v.id FROM scale_versions v WHERE NOT EXISTS (SELECT FROM bands b WHERE b.version_id = v.id AND b.label = $1)`,
    [labelled[0]!.proposal!.label],
  );
  await inDatabase(
    `INSERT INTO grades (item_id, period_id, enrollment_id, label, scale_version_id, posted_by, posted_at)
     SELECT $1, $2, $3, label, $4, 1, now() FROM bands WHERE version_id = $4 LIMIT 1
     ON CONFLICT (enrollment_id, item_id, period_id) DO UPDATE SET label = excluded.label, scale_version_id = excluded.scale_version_id`,
    [semesterGrade, semester1, last.enrollmentId, other!.id],
  );
  const proposals = (grades: readonly GradeFact[]) =>
    grades.slice(0, -1).map(({ enrollmentId, proposal }) => [enrollmentId, proposal?.label ?? null]);
  expect(proposals(await read([sectionId]))).toEqual(proposals(before));
});

async function running(period: SchoolPeriod): Promise<readonly number[]> {
  return (await inSnapshot((queries) => of(SnapshotService).sectionsOf(queries, period))).running;
}
