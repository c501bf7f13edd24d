// The demo district with a quarter of a million students more, each in eight sections of one course, and an export of
// all their totals: two million enrollments, two million rows.
import { createWriteStream } from 'node:fs';
import { finished } from 'node:stream/promises';
import { openDatabase } from '#server/platform';

export const rowCount = 2_000_000;
const [students, sectionsOfEach, studentsOfSection] = [250_000, 8, 250];
const sectionCount = (students * sectionsOfEach) / studentsOfSection;
const [firstStudent, firstSection, firstNumber] = [1_000_000, 100_000, 1_001];

/** Fills a folder that holds the demo district. */
export async function enlarge(folder) {
  const { pool, close } = await openDatabase({ kind: 'folder', folder, seedFile: null });
  await pool.query('SET session_replication_role = replica'); // what is made here refers to what is there
  await pool.query(`
    INSERT INTO people (id, sourced_id, kind, school_id, given_name, family_name, email)
    SELECT ${firstStudent} + n, 'N' || n, 'student', 1, 'Given ' || n % 97, 'Family ' || n % 997, 'n' || n || '@port-elowen.example'
    FROM generate_series(0, ${students - 1}) n`);
  await pool.query(`
    INSERT INTO sections (id, course_id, number, teacher_id, period_id)
    SELECT ${firstSection} + n, c.id, ${firstNumber} + n, s.teacher_id, s.period_id
    FROM generate_series(0, ${sectionCount - 1}) n, courses c JOIN sections s ON s.course_id = c.id AND s.number = 1
    WHERE c.title = 'Tidal Ecology'`);
  await pool.query(`
    INSERT INTO enrollments (id, section_id, student_id, entered_on)
    SELECT 10000000 + n, ${firstSection} + (n / ${studentsOfSection * sectionsOfEach}) * ${sectionsOfEach} + n % ${sectionsOfEach},
           ${firstStudent} + n / ${sectionsOfEach}, '2025-09-01' FROM generate_series(0, ${rowCount - 1}) n`);
  await pool.query('SET session_replication_role = DEFAULT');
  await pool.query('VACUUM ANALYZE');
  await close();
}

/** About a hundred megabytes. */
export async function writeExport(path) {
  const file = createWriteStream(path);
  file.write('Student number,Class,Course total (%),Remark\n');
  for (let n = 0; n < rowCount;) {
    let lines = '';
    for (const end = n + 10_000; n < end; n++) {
      const section =
        Math.floor(n / (studentsOfSection * sectionsOfEach)) * sectionsOfEach + (n % sectionsOfEach) + firstNumber;
      lines += `N${Math.floor(n / sectionsOfEach)},Tidal Ecology ${section},${(n % 10_000) / 100},"written, ${n}"\n`;
    }
    if (!file.write(lines)) await new Promise((resolve) => file.once('drain', resolve));
  }
  file.end();
  await finished(file);
}
