// Audits the quarter of a folder in a process of its own, and reads the same columns of the same grades; says on the last line how
// many grades there are, how long either took in milliseconds, and the most memory of the process in megabytes.
import { performance } from 'node:perf_hooks';
import { createApplicationContext } from '#server/application';
import { AuditTasksService, AuditRunsRepository } from '#server/audit';
import { CopyReader, openDatabase } from '#server/platform';
import { quarter } from './large-period.mjs';

const database = await openDatabase({ kind: 'folder', folder: process.argv[2], seedFile: null });
const { context } = await createApplicationContext(database);
const of = (kind) => context.get(kind, { strict: false });
const { rows: others } = await database.pool.query(
  'SELECT max(id) AS id FROM periods WHERE school_id = 3 AND parent_id IS NOT NULL',
);
const elsewhere = others[0].id;
const timed = async (work) => {
  const begun = performance.now();
  await work();
  return performance.now() - begun;
};
// Another school first: cold code.
await of(AuditTasksService).runNow({ personId: 1, name: 'Registrar' }, elsewhere);
const ours = await timed(() => of(AuditTasksService).runNow({ personId: 1, name: 'Registrar' }, quarter));
const most = process.resourceUsage().maxRSS / 1024;
const [run] = await of(AuditRunsRepository).newest(database.queries, quarter, 1);
const { rows: items } = await database.pool.query(
  `SELECT DISTINCT item_id AS id FROM grades WHERE period_id = ${quarter}`,
);
const { rows: sections } = await database.pool.query(`
  SELECT s.id FROM sections s JOIN courses c ON c.id = s.course_id WHERE c.school_id = 1 ORDER BY s.id`);
const atOnce = 2_000;
let bytes = 0;
const peer = await timed(async () => {
  for (const { id } of items)
    for (let from = 0; from < sections.length; from += atOnce) {
      const some = sections.slice(from, from + atOnce).map((section) => section.id);
      bytes += (await of(CopyReader).read(columnsOf(id, some))).length;
    }
});
console.log(JSON.stringify({ grades: run.gradesChecked, ours, peer, most, bytes }));
await context.close();
await database.close();

/** What the rules judge of the grades of an item. */
function columnsOf(itemId, sectionIds) {
  return `
    SELECT e.id, e.section_id, e.student_id, s.given_name, e.entered_on, e.withdrawn_on, g.percent, g.label, g.code, g.last_date, g.hours,
      g.comment, g.is_internal, g.override_reason, g.computed_then, g.scale_version_id, g.posted_at, c.percent, c.level
    FROM enrollments e JOIN people s ON s.id = e.student_id
    LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = ${itemId} AND g.period_id = ${quarter}
    LEFT JOIN computed_percents c ON c.enrollment_id = e.id AND c.item_id = ${itemId} AND c.period_id = ${quarter}
    WHERE e.section_id = ANY('{${sectionIds.join(',')}}'::int[])
    ORDER BY e.section_id, e.id`;
}
