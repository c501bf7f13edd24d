// Nine rules over 350,000 grades in memory, and the same rules as SQL in DuckDB on one thread: the quarter of the demo, its grades
// made odd in one of a hundred each way, many times over with other students. Says on the last line how long either took.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DuckDBInstance } from '@duckdb/node-api';
import { auditByParts, auditRules, seenInPart } from '#core/audit';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import { SnapshotService } from '#server/audit';
import { PeriodsRepository } from '#server/calendar';
import { onDemo } from './demo-database.mjs';
import { paired } from './median.mjs';

const rounds = 5;
const copies = 57;
const quarter = 4;
const sectionsAtOnce = 16;
/** No number of the demo is as large. */
const step = 100_000;

const ofGrades = (condition) => `SELECT enrollment FROM rows WHERE ${condition}`;
const opinions = {
  'code-with-percent': ofGrades('percent IS NOT NULL AND forbids_percent'),
  'code-switched-off': ofGrades('is_off'),
  'percent-out-of-range': ofGrades('percent < 0 OR percent > highest'),
  'comment-too-long': ofGrades(`comment_rule <> 'none' AND length(comment) > comment_length`),
  'grade-on-withdrawn-student': ofGrades('withdrawn_on IS NOT NULL AND (percent IS NOT NULL OR label IS NOT NULL)'),
  'last-date-outside-enrollment': ofGrades(
    `last_date > '1970-01-01' AND needs_first_day IS NOT TRUE AND (last_date < entered_on OR last_date > withdrawn_on)`,
  ),
  'posted-outside-window': ofGrades(
    '(percent IS NOT NULL OR label IS NOT NULL OR code IS NOT NULL) AND (posted_at < opens_at OR posted_at > last_at)',
  ),
  'left-before-coming': 'SELECT enrollment FROM seats WHERE withdrawn_on < entered_on',
  'enrolled-twice': `SELECT enrollment FROM seats WHERE withdrawn_on IS NULL
    QUALIFY row_number() OVER (PARTITION BY student, course ORDER BY enrollment) > 1`,
};
const rules = auditRules.filter(({ id }) => id in opinions);

const quarters = await onDemo(async (context, { queries }) => {
  const of = (kind) => context.get(kind, { strict: false });
  const period = await of(PeriodsRepository).byIdOrThrow(queries, quarter);
  const { running } = await of(SnapshotService).sectionsOf(queries, period);
  const { snapshot } = await of(SnapshotService).ofAudit(queries, period, running);
  return Array.from({ length: copies }, (_, copy) => oddCopy(snapshot, copy * step));
});

/** As many sections at a time as an audit reads. */
const parts = quarters.flatMap(partsOf);
const nothingSet = new Map();

const ours = () => {
  const audit = auditByParts(rules, nothingSet);
  for (const part of parts) audit.take(seenInPart(rules, nothingSet, part));
  Array.from(audit.conclude());
  const found = new Map(rules.map(({ id }) => [id, 0]));
  for (const { ruleId } of audit.outcomes().findings) found.set(ruleId, found.get(ruleId) + 1);
  return found;
};

const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
const instance = await DuckDBInstance.create(':memory:', { threads: '1' });
const connection = await instance.connect();
try {
  await load(connection);
  const asked = Object.entries(opinions).map(([id, text]) => `SELECT '${id}' AS rule, * FROM (${text})`);
  // Both come to findings: here with what is told of each, there with whom each is about.
  const theirs = () => connection.runAndReadAll(asked.join(' UNION ALL '));
  const measured = await paired(rounds, ours, async () => (await theirs()).getColumns());
  const counted = new Map();
  for (const [rule] of (await theirs()).getRows()) counted.set(rule, (counted.get(rule) ?? 0) + 1);
  for (const [id, found] of ours())
    if (found === 0 || counted.get(id) !== found) throw new Error(`${id}: ${found} here, ${counted.get(id)} there`);
  const grades = quarters.reduce((sum, snapshot) => sum + snapshot.grades.length, 0);
  console.log(JSON.stringify({ ...measured, grades }));
} finally {
  connection.closeSync();
  rmSync(folder, { recursive: true, force: true });
}

/** The quarter with other students, of whom one in a hundred is odd in each way. */
function oddCopy(snapshot, offset) {
  const isOdd = (at, way) => Math.imul(at + 7919 * way, 2_654_435_761) >>> 0 < 2 ** 32 / 100;
  const grades = snapshot.grades.map((grade, at) => ({
    ...grade,
    enrollmentId: grade.enrollmentId + offset,
    withdrawnOn: isOdd(at, 1) ? '2025-12-12' : grade.withdrawnOn,
    postedAt: isOdd(at, 2) ? '2026-03-02T09:00:00.000Z' : grade.postedAt,
    mark: {
      ...grade.mark,
      ...(isOdd(at, 3) && { percent: decimalOrThrow('140') }),
      ...(isOdd(at, 4) && { code: 'EXM' }),
      ...(isOdd(at, 5) && { code: 'VST', percent: null, label: null }),
      ...(isOdd(at, 6) && { comment: 'Steady. '.repeat(30) }),
      ...(isOdd(at, 7) && { lastDate: '2025-08-20' }),
    },
  }));
  const sections = snapshot.sections.map((section) => ({
    ...section,
    students: section.students.map((seat, at, all) => ({
      ...seat,
      enrollmentId: seat.enrollmentId + offset,
      studentId: (at > 0 && isOdd(seat.enrollmentId, 8) ? all[at - 1] : seat).studentId + offset,
      withdrawnOn: isOdd(seat.enrollmentId, 9) ? '2025-08-01' : seat.withdrawnOn,
    })),
  }));
  return { ...snapshot, grades, sections };
}

function partsOf(snapshot) {
  const bySection = new Map(snapshot.sections.map(({ id }) => [id, []]));
  for (const grade of snapshot.grades) bySection.get(grade.sectionId).push(grade);
  return Array.from({ length: Math.ceil(snapshot.sections.length / sectionsAtOnce) }, (_, at) => {
    const sections = snapshot.sections.slice(at * sectionsAtOnce, (at + 1) * sectionsAtOnce);
    return { ...snapshot, sections, grades: sections.flatMap(({ id }) => bySection.get(id)) };
  });
}

/** The same grades and seats as tables, with items and codes apart. */
async function load(into) {
  const [{ codes }] = quarters;
  const table = async (name, columns, rows) => {
    const path = join(folder, `${name}.csv`);
    writeFileSync(path, rows.map((row) => `${row.map(cellOf).join(',')}\n`).join(''));
    const types = Object.entries(columns).map(([column, type]) => `'${column}': '${type}'`);
    await into.run(`CREATE TABLE ${name} AS SELECT * FROM
      read_csv('${path}', header = false, nullstr = '\\N', quote = '"', escape = '"', columns = {${types.join(', ')}})`);
  };
  const decimal = (value) => value && formatDecimal(value);
  const scales = [...new Set(quarters.flatMap(({ grades }) => grades.map(({ scale }) => scale)))];
  const items = [...new Map(quarters[0].grades.map(({ item }) => [item.id, item])).values()];
  await table(
    'codes',
    { code: 'VARCHAR', forbids_percent: 'BOOLEAN', is_off: 'BOOLEAN', needs_first_day: 'BOOLEAN' },
    [...codes.values()].map((code) => [code.code, code.forbidsPercent, code.isOff, code.needsFirstDay]),
  );
  await table(
    'scales',
    { id: 'INTEGER', highest_level: 'DECIMAL(6,2)' },
    scales.map((scale, at) => [at, decimal(scale.highestLevel)]),
  );
  await table(
    'items',
    {
      id: 'INTEGER',
      highest_percent: 'DECIMAL(6,2)',
      comment_rule: 'VARCHAR',
      comment_length: 'INTEGER',
      opens_at: 'TIMESTAMPTZ',
      last_at: 'TIMESTAMPTZ',
    },
    items.map(({ id, highestPercent, commentRule, commentLength, window }) => [
      id,
      decimal(highestPercent),
      commentRule,
      commentLength,
      window?.opensAt ?? null,
      window ? (window.graceUntil ?? window.closesAt) : null,
    ]),
  );
  const placeOf = new Map(scales.map((scale, at) => [scale, at]));
  await table(
    'grades',
    {
      enrollment: 'INTEGER',
      item: 'INTEGER',
      scale: 'INTEGER',
      percent: 'DECIMAL(6,2)',
      label: 'VARCHAR',
      code: 'VARCHAR',
      last_date: 'DATE',
      comment: 'VARCHAR',
      entered_on: 'DATE',
      withdrawn_on: 'DATE',
      posted_at: 'TIMESTAMPTZ',
    },
    quarters.flatMap(({ grades }) =>
      grades.map(({ enrollmentId, item, scale, mark, enteredOn, withdrawnOn, postedAt }) => [
        enrollmentId,
        item.id,
        placeOf.get(scale),
        decimal(mark.percent),
        mark.label,
        mark.code,
        mark.lastDate,
        mark.comment,
        enteredOn,
        withdrawnOn,
        postedAt,
      ]),
    ),
  );
  await table(
    'seats',
    { enrollment: 'INTEGER', student: 'INTEGER', course: 'INTEGER', entered_on: 'DATE', withdrawn_on: 'DATE' },
    quarters.flatMap(({ sections }) =>
      sections.flatMap(({ course, students }) =>
        students.map(({ enrollmentId, studentId, enteredOn, withdrawnOn }) => [
          enrollmentId,
          studentId,
          course.id,
          enteredOn,
          withdrawnOn,
        ]),
      ),
    ),
  );
  await into.run(`CREATE VIEW rows AS
    SELECT g.*, i.comment_rule, i.comment_length, i.opens_at, i.last_at, coalesce(s.highest_level, i.highest_percent) AS highest,
      c.forbids_percent, c.is_off, c.needs_first_day
    FROM grades g JOIN items i ON i.id = g.item JOIN scales s ON s.id = g.scale LEFT JOIN codes c ON c.code = g.code`);
}

function cellOf(value) {
  return value === null || value === undefined
    ? '\\N'
    : typeof value === 'string'
      ? `"${value.replaceAll('"', '""')}"`
      : String(value);
}
