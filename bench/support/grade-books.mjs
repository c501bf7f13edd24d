// Made-up grade books in columns, and the same ones as SQL: every score is a formula of its number.
import { decimalOrThrow } from '#core/numbers';
import { plainPolicy } from '#core/calculation';

const studentsOfSection = 25;
const possibleHundredths = [1000, 2000, 2500, 5000, 10000];
const weights = ['30', '10', '20', '40'];

/** How many scores each enrollment has: `more` of them have one more than the others. */
export function sizeOf(enrollments, scores) {
  const least = Math.floor(scores / enrollments);
  return { enrollments, scores, least, more: scores - enrollments * least };
}

export const policy = {
  ...plainPolicy,
  method: 'categoryPoints',
  categories: weights.map((weight, categoryId) => ({
    categoryId,
    weight: decimalOrThrow(weight),
    dropLowest: 0,
    cap: null,
  })),
};

/** The columns of all grade books of a size. */
export function gradeBooks({ enrollments, scores, least, more }) {
  const perSection = least + 1;
  const assignments = Math.ceil(enrollments / studentsOfSection) * perSection;
  const columns = {
    starts: new Int32Array(enrollments + 1),
    assignment: new Int32Array(scores),
    points: new Int32Array(scores),
    flag: new Uint8Array(scores),
    possible: new Int32Array(assignments),
    bits: new Uint8Array(assignments),
    slot: new Uint8Array(assignments),
  };
  for (let id = 0; id < assignments; id++) {
    columns.possible[id] = possibleHundredths[(id * 31) % 5];
    columns.slot[id] = id % 4;
  }
  let score = 0;
  for (let enrollment = 0; enrollment < enrollments; enrollment++) {
    const own = least + (enrollment < more ? 1 : 0);
    const first = Math.floor(enrollment / studentsOfSection) * perSection;
    for (let at = 0; at < own; at++, score++) {
      const flag = score % 211 === 0 ? 1 : score % 307 === 0 ? 4 : 0; // missing, exempt
      const possible = columns.possible[first + at];
      columns.assignment[score] = first + at;
      columns.flag[score] = flag;
      columns.points[score] = flag ? -1 : (possible / 100) * (40 + ((score * 7919 + Math.floor(score / 97)) % 61));
    }
    columns.starts[enrollment + 1] = score;
  }
  return columns;
}

/** The same rows as statements that fill the tables `scores` and `assignments`. */
export function gradeBookTables({ enrollments, scores, least, more }) {
  const perSection = least + 1;
  const assignments = Math.ceil(enrollments / studentsOfSection) * perSection;
  const turn = more * perSection;
  return [
    `CREATE TABLE assignments AS
     SELECT id, [${possibleHundredths}][(id * 31) % 5 + 1] AS possible, id % 4 AS category FROM range(${assignments}) t(id)`,
    `CREATE TABLE placed AS
     SELECT id, CASE WHEN id < ${turn} THEN id // ${perSection} ELSE ${more} + (id - ${turn}) // ${least} END AS enrollment,
            CASE WHEN id < ${turn} THEN id % ${perSection} ELSE (id - ${turn}) % ${least} END AS at FROM range(${scores}) t(id)`,
    `CREATE TABLE scores AS
     SELECT p.enrollment::INTEGER AS enrollment, a.id::INTEGER AS assignment,
            CASE WHEN p.id % 211 = 0 THEN 1 WHEN p.id % 307 = 0 THEN 4 ELSE 0 END::UTINYINT AS flag,
            CASE WHEN p.id % 211 = 0 OR p.id % 307 = 0 THEN NULL
                 ELSE a.possible // 100 * (40 + (p.id * 7919 + p.id // 97) % 61) END::INTEGER AS points
     FROM placed p JOIN assignments a ON a.id = p.enrollment // ${studentsOfSection} * ${perSection} + p.at`,
    'DROP TABLE placed',
    'ALTER TABLE assignments ALTER id TYPE INTEGER',
    'ALTER TABLE assignments ALTER possible TYPE INTEGER',
    'ALTER TABLE assignments ALTER category TYPE UTINYINT',
  ];
}

/**
 * The sums of the policy in SQL, rounded half up from exact fractions as ours are: whole numbers over one denominator. Missing
 * counts as zero, exempt is left out, weights are shared over what has scores.
 */
export const sums = exactSums(weights.map((_weight, category) => category));

function exactSums(categories) {
  const each = (make, separator) => categories.map(make).join(separator);
  const others = (category) => each((other) => (other === category ? '1' : `p${other}`), ' * ');
  const total = `(${each((category) => `w${category}`, ' + ')}) * ${each((category) => `p${category}`, ' * ')}`;
  return `
  CREATE OR REPLACE TABLE result AS
  WITH added AS (
    SELECT s.enrollment,
           ${each((category) => `coalesce(sum(coalesce(s.points, 0)) FILTER (a.category = ${category}), 0)::HUGEINT AS e${category}`, ', ')},
           ${each((category) => `sum(a.possible) FILTER (a.category = ${category})::HUGEINT AS outof${category}`, ', ')}
    FROM scores s JOIN assignments a ON a.id = s.assignment
    WHERE s.flag <> 4
    GROUP BY s.enrollment
  ), weighed AS (
    SELECT enrollment,
           ${each((category) => `e${category}, coalesce(outof${category}, 1) AS p${category}, CASE WHEN outof${category} IS NULL THEN 0 ELSE ${weights[category]} END AS w${category}`, ', ')}
    FROM added
  )
  SELECT enrollment, ((2000 * (${each((category) => `w${category} * e${category} * ${others(category)}`, ' + ')}) + ${total}) // (2 * ${total}))::INTEGER AS percent
  FROM weighed`;
}
