import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
import { dayOrThrow, parseDay, type Day } from '#core/calendar';
import { decimalOrThrow, type Decimal, type Percent } from '#core/numbers';
import type { Pronoun } from '#core/people';
import type { Mark } from '#core/posting';
import type { SchoolPeriod } from '#server/calendar';
import { enrolledIn, type ScaleVersion } from '#server/period-view';
import {
  grouped,
  instantText,
  intArray,
  type Queries,
  nameOrderOf,
  personNameOf,
  spokenNameOf,
  studentNumberOf,
} from '#server/platform';

/** A student of a section as a report item sees them in one period: what is computed and what is posted. */
export interface GradeRow {
  readonly enrollmentId: number;
  readonly sectionId: number;
  readonly studentId: number;
  /** Family name first. */
  readonly student: string;
  readonly studentNumber: string;
  readonly enteredOn: Day;
  /** Set when the student left no later than the end of the period. */
  readonly withdrawnOn: Day | null;
  /** How the student is spoken of. */
  readonly pronoun: Pronoun;
  readonly mark: Mark;
  /** What was computed when the grade was posted, in the unit of the scale; null where nothing was. */
  readonly computedThen: Decimal | null;
  /** It said otherwise than what was computed then. */
  readonly isOverride: boolean;
  /** 0 when nothing was ever saved. */
  readonly version: number;
  /** The version that a run wrote last; null if none did. */
  readonly carriedVersion: number | null;
  readonly scaleVersionId: number | null;
  readonly postedBy: string | null;
  readonly postedAt: Date | null;
  readonly computed: Computed | null;
  /** Assignments of Wombat's own grade book that keep the student from having a computed percentage. */
  readonly blockedBy: readonly number[];
}

export interface Computed {
  /** A percentage, or a level where the file or the item has levels. */
  readonly percent: Percent;
  /** The same as a level; null where the grade book reads none. */
  readonly level: Decimal | null;
  /** The row of the file that says it; null where the section's own grade book comes to it. */
  readonly file: { readonly importId: number; readonly importRow: number } | null;
}

/** A seat that a student left before they came to another section of the course. */
export interface EarlierSeat {
  readonly enrollmentId: number;
  readonly earlierId: number;
  readonly sectionId: number;
}

/** What is computed in the unit of the scale: a level where it has levels, else a percentage; null where there is none. */
export function computedValue({ computed }: GradeRow, { kind }: Pick<ScaleVersion, 'kind'>): Decimal | null {
  return (kind === 'level' ? computed?.level : computed?.percent) ?? null;
}

interface RawRow extends Record<string, unknown> {
  item_id: number;
  enrollment_id: number;
  section_id: number;
  student_id: number;
  student: string;
  student_number: string;
  entered_on: string;
  withdrawn_on: string | null;
  percent: string | null;
  label: string | null;
  code: string | null;
  last_date: string | null;
  hours: string | null;
  comment: string | null;
  is_internal: boolean;
  override_reason: string;
  computed_then: string | null;
  is_override: boolean;
  pronoun: Pronoun;
  version: number | null;
  carried_version: number | null;
  scale_version_id: number | null;
  posted_by: string | null;
  posted_at: string | null;
  computed: string | null;
  computed_level: string | null;
  import_id: number | null;
  import_row: number | null;
  blocked_by: number[] | null;
}

/** Up to so many sections, what belongs to a seat is looked up seat by seat. */
const fewSections = 60;

/** What is joined to a seat: a table, what it is called, and which of its rows belong to the seat. */
type LookUp = (table: 'people' | 'grades' | 'file_percents', as: string, condition: SQL) => SQL;

/** For whole schools: tables are read in one go. */
const inOneGo: LookUp = (table, as, condition) => sql`${sql.raw(`${table} ${as}`)} ON ${condition}`;

/** For single sections or students, by an index: all of a period is many times what they have. */
const seatBySeat: LookUp = (table, as, condition) =>
  sql`LATERAL (SELECT * FROM ${sql.raw(`${table} ${as}`)} WHERE ${condition} OFFSET 0) ${sql.raw(as)} ON true`;

/** Rows of several items, by item; an item without any is not there. */
export type RowsByItem = ReadonlyMap<number, readonly GradeRow[]>;

/** Reads what sheets, audit and seal all look at, with the same idea of who belongs to a period. */
@Injectable()
export class GradeRowsRepository {
  /** By section, then by name. Students who left before the period or came after it are not there. */
  async ofSections(
    queries: Queries,
    itemId: number,
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<readonly GradeRow[]> {
    return (await this.itemsOfSections(queries, [itemId], period, sectionIds)).get(itemId) ?? [];
  }

  /** The same of several items, read at once. */
  async itemsOfSections(
    queries: Queries,
    itemIds: readonly number[],
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<RowsByItem> {
    if (sectionIds.length === 0 || itemIds.length === 0) return new Map();
    const isFew = sectionIds.length <= fewSections;
    const condition = sql`e.section_id = ANY(${intArray(sectionIds)})`;
    return this.where(queries, itemIds, period, condition, isFew ? seatBySeat : inOneGo);
  }

  itemsOfStudent(
    queries: Queries,
    itemIds: readonly number[],
    period: SchoolPeriod,
    studentId: number,
  ): Promise<RowsByItem> {
    return this.where(queries, itemIds, period, sql`e.student_id = ${studentId}`, seatBySeat);
  }

  /**
   * For each enrollment in some sections whose student left another section of the course before: that seat and its section, the
   * last one first.
   */
  async earlierSeats(queries: Queries, sectionIds: readonly number[]): Promise<EarlierSeat[]> {
    const { rows } = await queries.execute<EarlierSeat & Record<string, unknown>>(sql`
      SELECT e.id AS "enrollmentId", o.id AS "earlierId", o.section_id AS "sectionId"
      FROM enrollments e JOIN sections s ON s.id = e.section_id
      JOIN enrollments o ON o.student_id = e.student_id AND o.withdrawn_on <= e.entered_on AND o.id <> e.id
      JOIN sections x ON x.id = o.section_id AND x.course_id = s.course_id
      WHERE e.section_id = ANY(${intArray(sectionIds)}) ORDER BY e.id, o.withdrawn_on DESC, o.id DESC`);
    return rows;
  }

  private async where(
    queries: Queries,
    itemIds: readonly number[],
    period: SchoolPeriod,
    condition: SQL,
    lookUp: LookUp,
  ): Promise<RowsByItem> {
    const ofSeat = (row: SQL) =>
      sql`${row}.enrollment_id = e.id AND ${row}.item_id = i.id AND ${row}.period_id = ${period.id}`;
    const isOfBook = sql`is_of_book(i) AND i.period_kind = ${period.kind}`;
    const { rows } = await queries.execute<RawRow>(sql`
      SELECT i.id AS item_id, e.id AS enrollment_id, e.section_id, e.student_id, ${personNameOf('s')} AS student,
             ${studentNumberOf('s')} AS student_number,
             e.entered_on::text AS entered_on,
             CASE WHEN e.withdrawn_on <= ${period.endsOn} THEN e.withdrawn_on END::text AS withdrawn_on,
             g.percent::text, g.label, g.code, g.last_date::text, trim_scale(g.hours)::text AS hours, g.comment, coalesce(g.is_internal, false) AS is_internal,
             coalesce(g.override_reason, '') AS override_reason, trim_scale(g.computed_then)::text AS computed_then, coalesce(g.is_override, false) AS is_override,
             coalesce(s.pronoun, 'they') AS pronoun, g.version, g.carried_version, g.scale_version_id,
             ${spokenNameOf('p')} AS posted_by,
             ${instantText('g.posted_at')} AS posted_at,
             trim_scale(c.percent)::text AS computed, trim_scale(c.level)::text AS computed_level, f.import_id, f.import_row,
             CASE WHEN c.percent IS NULL THEN CASE WHEN i.category_id IS NULL THEN k.blocked_by
               ELSE k.by_category -> i.category_id::text -> 'blockedBy' END END AS blocked_by
      FROM enrollments e
      JOIN report_items i ON i.id = ANY(${intArray(itemIds)})
      JOIN ${lookUp('people', 's', sql`s.id = e.student_id`)}
      LEFT JOIN ${lookUp('grades', 'g', ofSeat(sql`g`))}
      LEFT JOIN people p ON p.id = g.posted_by
      LEFT JOIN calculated_grades k ON k.enrollment_id = e.id AND k.period_id = ${period.id}
      LEFT JOIN ${lookUp('file_percents', 'f', ofSeat(sql`f`))}
      -- As the view computed_percents has it: a file's value, else what the grade book comes to.
      CROSS JOIN LATERAL (SELECT
        CASE WHEN f.percent IS NOT NULL THEN f.percent WHEN ${isOfBook} THEN book_percent(k, i.category_id) END AS percent,
        CASE WHEN f.percent IS NOT NULL THEN f.percent WHEN ${isOfBook} THEN book_level(k, i.category_id) END AS level) c
      WHERE ${condition} AND ${enrolledIn(period)}
      ORDER BY e.section_id, ${nameOrderOf('s')}, e.id`);
    return grouped(rows, (row) => [row.item_id, gradeRowOfRaw(row)]);
  }
}

function gradeRowOfRaw(raw: RawRow): GradeRow {
  return {
    enrollmentId: raw.enrollment_id,
    sectionId: raw.section_id,
    studentId: raw.student_id,
    student: raw.student,
    studentNumber: raw.student_number,
    enteredOn: dayOrThrow(raw.entered_on),
    withdrawnOn: dayOrNull(raw.withdrawn_on),
    mark: {
      percent: raw.percent === null ? null : decimalOrThrow(raw.percent),
      label: raw.label,
      code: raw.code,
      lastDate: dayOrNull(raw.last_date),
      hours: raw.hours === null ? null : decimalOrThrow(raw.hours),
      comment: raw.comment ?? '',
      isInternal: raw.is_internal,
      overrideReason: raw.override_reason,
    },
    computedThen: raw.computed_then === null ? null : decimalOrThrow(raw.computed_then),
    isOverride: raw.is_override,
    pronoun: raw.pronoun,
    version: raw.version ?? 0,
    carriedVersion: raw.carried_version,
    scaleVersionId: raw.scale_version_id,
    postedBy: raw.posted_by,
    postedAt: raw.posted_at === null ? null : new Date(raw.posted_at),
    computed:
      raw.computed === null
        ? null
        : {
            percent: decimalOrThrow(raw.computed),
            level: raw.computed_level === null ? null : decimalOrThrow(raw.computed_level),
            file: raw.import_id === null ? null : { importId: raw.import_id, importRow: raw.import_row! },
          },
    blockedBy: raw.blocked_by ?? [],
  };
}

function dayOrNull(text: string | null): Day | null {
  return text === null ? null : (parseDay(text) ?? null);
}
