import { sql, type SQL } from 'drizzle-orm';
import { comesOutOfBook, type BookItem } from '#core/report-items';
import type { SchoolPeriod } from '#server/calendar';
import { enrolledIn } from '#server/period-view';
import { instantText, intArray, nameOrderOf, personNameOf, spokenNameOf, studentNumberOf } from '#server/platform';

/** Whose grades are asked for: those of some sections, or of a student. */
export type Whose = { readonly sectionIds: readonly number[] } | { readonly studentId: number };

/**
 * What is asked for the rows of some items; each question once, however many items there are. Their columns are in the order of
 * the fields that `gradeRowsOf` reads.
 */
export interface GradeQuestions {
  readonly seats: SQL;
  readonly posted: SQL;
  readonly computed: SQL;
}

/** Beyond so many sections, tables are read in one go. */
const manySections = 60;

/** What is joined to a seat: a table, what it is called, and which of its rows belong to the seat. */
type LookUp = (table: 'people' | 'grades' | 'file_percents', as: string, condition: SQL) => SQL;

/** For whole schools: tables are read in one go. */
const inOneGo: LookUp = (table, as, condition) => sql`${sql.raw(`${table} ${as}`)} ON ${condition}`;

/** For single sections or students, by an index: all of a period is many times what they have. */
const seatBySeat: LookUp = (table, as, condition) =>
  sql`LATERAL (SELECT * FROM ${sql.raw(`${table} ${as}`)} WHERE ${condition} OFFSET 0) ${sql.raw(as)} ON true`;

export function gradeQuestions(items: readonly BookItem[], period: SchoolPeriod, whose: Whose): GradeQuestions {
  const isMany = 'sectionIds' in whose && whose.sectionIds.length > manySections;
  const lookUp = isMany ? inOneGo : seatBySeat;
  const theirs =
    'sectionIds' in whose
      ? sql`e.section_id = ANY(${intArray(whose.sectionIds)})`
      : sql`e.student_id = ${whose.studentId}`;
  const seats = sql`${theirs} AND ${enrolledIn(period)}`;
  const ofSeat = (row: SQL) => sql`${row}.enrollment_id = e.id AND ${row}.period_id = ${period.id}`;
  const ofItems = (row: SQL) => sql`${row}.item_id = ANY(${intArray(items.map(({ id }) => id))})`;
  return {
    seats: sql`
      SELECT e.id AS "enrollmentId", e.section_id AS "sectionId", e.student_id AS "studentId",
        ${personNameOf('s')} AS student, ${studentNumberOf('s')} AS "studentNumber", e.entered_on::text AS "enteredOn",
        CASE WHEN e.withdrawn_on <= ${period.endsOn} THEN e.withdrawn_on END::text AS "withdrawnOn",
        coalesce(s.pronoun, 'they') AS pronoun, trim_scale(k.percent)::text AS percent, trim_scale(k.level)::text AS level,
        CASE WHEN k.percent IS NULL THEN k.blocked_by END::text AS "blockedBy"
      FROM enrollments e JOIN ${lookUp('people', 's', sql`s.id = e.student_id`)}
      LEFT JOIN calculated_grades k ON k.enrollment_id = e.id AND k.period_id = ${period.id}
      WHERE ${seats} ORDER BY e.section_id, ${nameOrderOf('s')}, e.id`,
    posted: sql`
      SELECT g.item_id AS "itemId", g.enrollment_id AS "enrollmentId", g.percent::text, g.label, g.code,
        g.last_date::text AS "lastDate", trim_scale(g.hours)::text AS hours, g.comment, g.is_internal::int AS "isInternal",
        g.override_reason AS "overrideReason", trim_scale(g.computed_then)::text AS "computedThen",
        g.is_override::int AS "isOverride", g.version, g.carried_version AS "carriedVersion",
        g.scale_version_id AS "scaleVersionId", ${spokenNameOf('p')} AS "postedBy", ${instantText('g.posted_at')} AS "postedAt"
      FROM enrollments e JOIN ${lookUp('grades', 'g', ofSeat(sql`g`))} JOIN people p ON p.id = g.posted_by
      WHERE ${seats} AND ${ofItems(sql`g`)}`,
    computed: sql`
      SELECT f.item_id AS "itemId", f.enrollment_id AS "enrollmentId", trim_scale(f.percent)::text AS percent,
        trim_scale(f.percent)::text AS level, NULL::text AS "blockedBy", f.import_id AS "importId", f.import_row AS "importRow"
      FROM enrollments e JOIN ${lookUp('file_percents', 'f', ofSeat(sql`f`))}
      WHERE ${seats} AND ${ofItems(sql`f`)}
        AND EXISTS (SELECT FROM file_imports t WHERE t.period_id = ${period.id} AND t.status = 'accepted')
      ${ofCategories(items, period, seats)}`,
  };
}

/** What a grade book comes to in the categories of items that are of one; most items are of the whole book. */
function ofCategories(items: readonly BookItem[], period: SchoolPeriod, seats: SQL): SQL {
  const ids = items.filter((item) => item.categoryId !== null && comesOutOfBook(item, period)).map(({ id }) => id);
  if (ids.length === 0) return sql``;
  const blockedBy = sql`k.by_category -> i.category_id::text -> 'blockedBy'`;
  return sql`
    UNION ALL
    SELECT i.id, e.id, trim_scale(v.percent)::text, trim_scale(v.level)::text, CASE WHEN v.percent IS NULL THEN ${blockedBy} END::text, NULL, NULL
    FROM enrollments e JOIN calculated_grades k ON k.enrollment_id = e.id AND k.period_id = ${period.id}
    JOIN report_items i ON i.id = ANY(${intArray(ids)})
    CROSS JOIN LATERAL (
      SELECT book_percent(k, i.category_id) AS percent, book_level(k, i.category_id) AS level OFFSET 0) v
    WHERE ${seats}`;
}
