// One measurement of calculating the grade books of a whole district, in a process of its own: what ran before in the same one
// (other columns, other policies, another engine's threads) would be measured too. Prints what ours and the peer took.
import { DuckDBInstance } from '@duckdb/node-api';
import { calculateGrades, preparePolicy } from '#core/calculation';
import { gradeBooks, gradeBookTables, policy, sizeOf, sums } from './grade-books.mjs';
import { paired } from './median.mjs';

const rounds = 9;
const full = sizeOf(350_000, 10_000_000);
const part = sizeOf(105_000, 3_000_000);
const precision = { digits: 1, rounding: 'halfUp' };

const calculation = (columns, drops = 0) => {
  const dropping = {
    ...policy,
    categories: policy.categories.map((share, at) => ({ ...share, dropLowest: at < 2 ? drops : 0 })),
  };
  const prepared = [preparePolicy(dropping)];
  const policyOf = new Uint8Array(columns.starts.length - 1);
  return () => calculateGrades(columns, prepared, policyOf, precision);
};

const measurements = {
  reading: () => againstReading(0),
  dropping: () => againstReading(1),
  sql: againstSql,
  async growth() {
    const { ours, peer } = await paired(rounds, calculation(gradeBooks(full)), calculation(gradeBooks(part)));
    return { ours: ours / peer, peer: full.scores / part.scores };
  },
  /** Nothing is let go of before the end; the system's own peak would count the process that started this one. */
  memory() {
    const { percent } = calculation(gradeBooks(full))();
    if (percent.includes(-1)) throw new Error('somebody has no grade');
    return { ours: process.memoryUsage().rss / 2 ** 20, peer: 700 };
  },
};

process.stdout.write(JSON.stringify(await measurements[process.argv[2]]()));

async function againstReading(drops) {
  const columns = gradeBooks(full);
  return paired(rounds, calculation(columns, drops), () => read(columns));
}

/** Reads what a calculation has to read of each score, and does nothing with it but add. */
function read({ points, flag, assignment }) {
  let sum = 0;
  for (let score = 0; score < points.length; score++) sum += points[score] + flag[score] + assignment[score];
  if (sum === 0) throw new Error('there are no scores');
}

async function againstSql() {
  const ours = calculation(gradeBooks(full));
  const instance = await DuckDBInstance.create(':memory:', { threads: '1' });
  const connection = await instance.connect();
  for (const statement of gradeBookTables(full)) await connection.run(statement);
  const measured = await paired(rounds, ours, () => connection.run(sums));
  const reader = await connection.runAndReadAll('SELECT percent FROM result ORDER BY enrollment');
  refuseOtherSums(ours().percent, reader.getColumns()[0]);
  connection.closeSync();
  return measured;
}

/** Both must have done the same sums, to the last digit. */
function refuseOtherSums(ours, theirs) {
  const differing = [...ours.keys()].filter((at) => ours[at] !== theirs[at]);
  if (theirs.length !== ours.length || differing.length > 0)
    throw new Error(`${differing.length} of ${ours.length} grades differ from those in SQL`);
}
