import { sql } from 'drizzle-orm';
import type { ScoreFlag } from '#core/calculation';
import { resultFieldsOf, type ExchangeRow } from '#core/exchange';
import type { Queries } from '#server/platform';
import { column, idOf, joinId, rowsOf } from './held-query.js';

/** The assignments of all grade books, with what the standard has no column for beside. */
export function lineItemsOf(queries: Queries): Promise<ExchangeRow[]> {
  return rowsOf(
    queries,
    sql`
    SELECT ${idOf('assignment')} AS "sourcedId", a.name AS title, a.due_on::text AS "assignDate", a.due_on::text AS "dueDate",
           coalesce(n.sourced_id, 'section-' || a.section_id) AS "classSourcedId",
           coalesce(g.sourced_id, 'category-' || a.category_id) AS "categorySourcedId",
           coalesce(p.sourced_id, 'period-' || a.period_id) AS "gradingPeriodSourcedId", '0' AS "resultValueMin",
           trim_scale(a.possible)::text AS "resultValueMax", a.is_extra::text AS ${column('extra')},
           a.is_counted::text AS ${column('counted')}, a.is_published::text AS ${column('published')},
           (SELECT string_agg(w.sourced_id, ',' ORDER BY w.sourced_id) FROM jsonb_array_elements_text(a.given_to) AS gt(id)
            JOIN enrollments e ON e.id = gt.id::int JOIN people w ON w.id = e.student_id) AS ${column('students')}
    FROM assignments a ${joinId('assignment', sql`a.id`)}
    LEFT JOIN sourced_ids n ON n.kind = 'section' AND n.our_id = a.section_id
    LEFT JOIN sourced_ids g ON g.kind = 'category' AND g.our_id = a.category_id
    LEFT JOIN sourced_ids p ON p.kind = 'period' AND p.our_id = a.period_id ORDER BY a.id`,
  );
}

/** Line items whose scores are read at once: few enough for others to be answered in between. */
const itemsAtOnce = 60;

/** The scores of line items, by their ids, some at a time. */
export async function* resultsOf(queries: Queries, lineItemIds: readonly string[]): AsyncGenerator<ExchangeRow[]> {
  for (let from = 0; from < lineItemIds.length; from += itemsAtOnce)
    yield await resultsOfSome(queries, lineItemIds.slice(from, from + itemsAtOnce));
}

async function resultsOfSome(queries: Queries, lineItemIds: readonly string[]): Promise<ExchangeRow[]> {
  const { rows } = await queries.execute<{
    item: string;
    student: string;
    points: string | null;
    flag: ScoreFlag | null;
    day: string;
  }>(sql`
    WITH named AS (
      SELECT n.id AS item, n.place, coalesce(i.our_id, CASE WHEN n.id ~ '^assignment-[0-9]{1,9}$' THEN substr(n.id, 12)::int END) AS assignment_id
      FROM jsonb_array_elements_text(${JSON.stringify(lineItemIds)}::jsonb) WITH ORDINALITY AS n(id, place)
      LEFT JOIN sourced_ids i ON i.kind = 'assignment' AND i.sourced_id = n.id
    )
    SELECT n.item, p.sourced_id AS student, trim_scale(x.points)::text AS points, x.flag, a.due_on::text AS day
    FROM named n JOIN assignments a ON a.id = n.assignment_id JOIN scores x ON x.assignment_id = a.id
    JOIN enrollments e ON e.id = x.enrollment_id JOIN people p ON p.id = e.student_id
    WHERE x.points IS NOT NULL OR x.flag IS NOT NULL ORDER BY n.place, e.id`);
  return rows.map(({ item, student, points, flag, day }) => ({
    sourcedId: `${item}/${student}`,
    lineItemSourcedId: item,
    studentSourcedId: student,
    scoreDate: day,
    ...resultFieldsOf(points, flag),
  }));
}
