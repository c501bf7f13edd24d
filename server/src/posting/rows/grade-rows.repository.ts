import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
import type { BookItem } from '#core/report-items';
import type { SchoolPeriod } from '#server/calendar';
import { intArray, type Queries } from '#server/platform';
import { gradeRowsOf, type GradeFields, type RowsByItem } from './grade-fields.js';
import { gradeQuestions, type Whose } from './grade-questions.js';
import type { GradeRow } from './grade-row.js';

/** A seat that a student left before they came to another section of the course. */
export interface EarlierSeat {
  readonly enrollmentId: number;
  readonly earlierId: number;
  readonly sectionId: number;
}

/** Reads what sheets, audit and seal all look at, with the same idea of who belongs to a period. */
@Injectable()
export class GradeRowsRepository {
  /** By section, then by name. Students who left before the period or came after it are not there. */
  async ofSections(
    queries: Queries,
    item: BookItem,
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<readonly GradeRow[]> {
    return (await this.itemsOfSections(queries, [item], period, sectionIds)).get(item.id) ?? [];
  }

  /** The same of several items, read at once. */
  async itemsOfSections(
    queries: Queries,
    items: readonly BookItem[],
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<RowsByItem> {
    return sectionIds.length === 0 ? new Map() : this.rows(queries, items, period, { sectionIds });
  }

  itemsOfStudent(
    queries: Queries,
    items: readonly BookItem[],
    period: SchoolPeriod,
    studentId: number,
  ): Promise<RowsByItem> {
    return this.rows(queries, items, period, { studentId });
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

  private async rows(
    queries: Queries,
    items: readonly BookItem[],
    period: SchoolPeriod,
    whose: Whose,
  ): Promise<RowsByItem> {
    if (items.length === 0) return new Map();
    const { seats, posted, computed } = gradeQuestions(items, period, whose);
    const { rows } = await queries.execute<Answers>(
      sql`SELECT ${linesOf(seats)} AS seats, ${linesOf(posted)} AS posted, ${linesOf(computed)} AS computed`,
    );
    const fields = Object.values(rows[0]!).map((lines) => (lines ?? []).map((line) => Object.values(line)));
    return gradeRowsOf(items, period, { seats: fields[0]!, posted: fields[1]!, computed: fields[2]! });
  }
}

/** What each question was answered, its columns in the order of the question; null for no line. */
type Answers = Record<keyof GradeFields, Record<string, number | string | null>[] | null>;

/** A question inside another one: three that are asked for a sheet each take longer to be asked than to be answered. */
function linesOf(question: SQL): SQL {
  return sql`(SELECT json_agg(q) FROM (${question}) q)`;
}
