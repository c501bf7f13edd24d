// The upper school of the demo many times over in one quarter: every copy has its own students and sections, with the grades of
// the demo and of two items more.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { prepareDemo } from '#demo';
import { seedFile } from '#server/application';
import { makeSeed, openDatabase } from '#server/platform';

export const quarter = 4;
const school = 1;
/** No number of the demo is as large. */
const step = 100_000;

/** Does a work on a data folder with so many copies beside the school itself; the folder goes afterwards. */
export async function onLargePeriod(copies, work) {
  const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
  try {
    await makeSeed(seedFile);
    const { pool, close, ...database } = await openDatabase({ kind: 'folder', folder, seedFile });
    await prepareDemo({ pool, close, ...database });
    await enlarge(pool, copies);
    await close();
    return await work(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function enlarge(pool, copies) {
  await pool.query('SET session_replication_role = replica'); // what is copied refers to what is copied
  for (const [at, name] of ['Effort', 'Practice'].entries()) {
    const id = 190 + at;
    await pool.query(`
      INSERT INTO report_items (id, school_id, name, heading, period_kind, source, digits, rounding, failing_needs_last_date, on_transcript, position)
      SELECT ${id}, school_id, '${name}', '${name}', period_kind, 'hand', digits, rounding, false, false, ${10 + at} FROM report_items WHERE id = 1`);
    await pool.query(
      `INSERT INTO report_item_rules (school_id, item_id, position) VALUES (${school}, ${id}, ${20 + at})`,
    );
    await pool.query(`
      INSERT INTO posting_windows (item_id, period_id, opens_at, closes_at)
      SELECT ${id}, period_id, opens_at, closes_at FROM posting_windows WHERE item_id = 1 AND period_id = ${quarter}`);
    await pool.query(`
      INSERT INTO grades (item_id, period_id, enrollment_id, percent, label, scale_version_id, posted_by, posted_at)
      SELECT ${id}, period_id, enrollment_id, percent, label, scale_version_id, posted_by, posted_at
      FROM grades WHERE item_id = 1 AND period_id = ${quarter} AND percent IS NOT NULL AND label IS NOT NULL`);
  }
  const from = `FROM generate_series(1, ${copies}) copy,`;
  const own = `JOIN courses c ON c.id = s.course_id WHERE c.school_id = ${school}`;
  await pool.query(`
    INSERT INTO people (id, sourced_id, kind, school_id, given_name, family_name, pronoun, email)
    SELECT p.id + copy * ${step}, p.sourced_id || '-' || copy, p.kind, p.school_id, p.given_name, p.family_name, p.pronoun, p.email || copy
    ${from} people p WHERE p.kind = 'student' AND p.school_id = ${school}`);
  await pool.query(`
    INSERT INTO sections (id, course_id, number, teacher_id, period_id, starts_on, ends_on, seats)
    SELECT s.id + copy * ${step}, s.course_id, s.number + copy * 100, s.teacher_id, s.period_id, s.starts_on, s.ends_on, s.seats
    ${from} sections s ${own}`);
  await pool.query(`
    INSERT INTO enrollments (id, section_id, student_id, entered_on, withdrawn_on)
    SELECT e.id + copy * ${step}, e.section_id + copy * ${step}, e.student_id + copy * ${step}, e.entered_on, e.withdrawn_on
    ${from} enrollments e JOIN sections s ON s.id = e.section_id ${own}`);
  await pool.query(`
    INSERT INTO calculated_grades (enrollment_id, period_id, percent, level, by_category, blocked_by, calculated_at)
    SELECT k.enrollment_id + copy * ${step}, k.period_id, k.percent, k.level, k.by_category, k.blocked_by, k.calculated_at
    ${from} calculated_grades k JOIN enrollments e ON e.id = k.enrollment_id JOIN sections s ON s.id = e.section_id ${own}
      AND k.period_id = ${quarter}`);
  await pool.query(`
    INSERT INTO sign_offs (section_id, item_id, period_id, signed_by, signed_at)
    SELECT o.section_id + copy * ${step}, o.item_id, o.period_id, o.signed_by, o.signed_at
    ${from} sign_offs o JOIN sections s ON s.id = o.section_id ${own} AND o.period_id = ${quarter}`);
  for (let copy = 1; copy <= copies; copy++)
    await pool.query(`
      INSERT INTO grades (item_id, period_id, enrollment_id, percent, label, code, last_date, comment, computed_then, is_override,
        override_reason, scale_version_id, posted_by, posted_at)
      SELECT g.item_id, g.period_id, g.enrollment_id + ${copy * step}, g.percent, g.label, g.code, g.last_date, g.comment, g.computed_then,
        g.is_override, g.override_reason, g.scale_version_id, g.posted_by, g.posted_at
      FROM grades g JOIN enrollments e ON e.id = g.enrollment_id JOIN sections s ON s.id = e.section_id ${own}
        AND g.period_id = ${quarter} AND e.id < ${step}`);
  await pool.query('SET session_replication_role = DEFAULT');
  await pool.query('VACUUM ANALYZE');
}
