// The preview of a scale's effect over 140,000 grades: reading and working it out in its thread, against reading alone.
import 'reflect-metadata';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { decimalOrThrow } from '#core/numbers';
import { plainGpaPolicy } from '#core/transcripts';
import { bodyOfGpaPolicy } from '#contract/transcripts';
import { createApplicationContext, seedFile } from '#server/application';
import { CopyReader, makeSeed, openDatabase } from '#server/platform';
import { paired } from './support/median.mjs';

const rounds = 7;
const grades = 140_000;
const query = 'SELECT student_id, 1, section_id, percent, label, NULL, computed, 1 FROM bench_grades';
const cutOffs = [93, 90, 87, 83, 80, 77, 73, 70, 67, 60, 0];
const labels = ['A', 'A-', 'B+', 'B', 'B-', 'C+', 'C', 'C-', 'D+', 'D', 'F'];

const bands = (shift) =>
  labels.map((label, at) => ({
    label,
    descriptor: '',
    isOff: false,
    passes: label !== 'F',
    earnsCredit: label !== 'F',
    lowest: decimalOrThrow(String(at === labels.length - 1 ? 0 : cutOffs[at] + shift)),
    points: decimalOrThrow((4 - at * 0.4).toFixed(1)),
  }));

export const measurements = [
  {
    what: 'what a draft would do to 140,000 grades, reading them included',
    against: 'reading them',
    limit: 3,
    measure: () =>
      onGrades(async (copies, pool) => {
        const uses = Array.from({ length: 4000 }, (_each, section) => ({
          item: 1,
          section,
          course: section,
          before: 1,
          after: 2,
          precision: 0,
          credits: 2500,
          addition: 0,
          counts: 1,
        }));
        const task = {
          uses,
          precisions: [{ digits: 1, rounding: 'halfUp' }],
          versions: new Map([
            [1, bands(0)],
            [2, bands(-0.5)],
          ]),
          gpa: bodyOfGpaPolicy(plainGpaPolicy),
          mostCredits: new Map(),
        };
        const preview = async () => pool.run({ ...task, rows: await copies.read(query) });
        const { changed } = await preview(); // the thread starts once and stays
        if (changed === 0) throw new Error('the draft of the bench moves nothing');
        return paired(rounds, preview, () => copies.read(query));
      }),
  },
];

async function onGrades(work) {
  const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
  await makeSeed(seedFile);
  const database = await openDatabase({ kind: 'folder', folder, seedFile });
  const worker = new URL('./effect-worker.js', import.meta.resolve('#server/scales'));
  const pool = new Piscina({ filename: fileURLToPath(worker), minThreads: 1, execArgv: [] });
  try {
    await database.pool.query(`
      CREATE TABLE bench_grades AS
      SELECT at / 6 AS student_id, at % 4000 AS section_id, p.percent,
             ('{F,D,D+,C-,C,C+,B-,B,B+,A-,A}'::text[])[width_bucket(p.percent, '{0,60,67,70,73,77,80,83,87,90,93}'::numeric[])] AS label,
             NULL::numeric AS computed
      FROM generate_series(0, ${grades - 1}) AS at, LATERAL (SELECT round(55 + (at * 7919 % 450) / 10.0, 1) AS percent) p`);
    const { context } = await createApplicationContext(database);
    const result = await work(context.get(CopyReader, { strict: false }), pool);
    await context.close();
    return result;
  } finally {
    await pool.destroy();
    await database.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
