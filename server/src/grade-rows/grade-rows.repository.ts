import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
import { gradeRowsOf, type Fields, type GradeFields, type GradeRow, type RowsByItem } from '#core/grade-rows';
import type { BookItem } from '#core/report-items';
import type { SchoolPeriod } from '#server/calendar';
import { intArray, type Queries } from '#server/platform';
import { gradeQuestions, type GradeQuestions, type Whose } from './grade-questions.js';

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

  /** What `gradeRowsOf` makes the same of, as plain data that a thread can be handed. */
  async fieldsOfSections(
    queries: Queries,
    items: readonly BookItem[],
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<GradeFields> {
    const { seats, posted, computed } = gradeQuestions(items, period, { sectionIds });
    return {
      seats: await fieldsOf(queries, seats),
      posted: await fieldsOf(queries, posted),
      computed: await fieldsOf(queries, computed),
    };
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
    const isMany = 'sectionIds' in whose && whose.sectionIds.length > fewSections;
    const fields = isMany
      ? await this.fieldsOfSections(queries, items, period, whose.sectionIds)
      : await fieldsAtOnce(queries, gradeQuestions(items, period, whose));
    return gradeRowsOf(items, period, fields);
  }
}

type Line = Record<string, number | string | null>;

/** Every line of an answer, its columns in the order of the question. */
async function fieldsOf(queries: Queries, question: SQL): Promise<Fields[]> {
  const { rows } = await queries.execute<Line>(question);
  return rows.map((row) => Object.values(row));
}

/** Up to so many sections the three questions take longer to be asked than to be answered. */
const fewSections = 2;

/** The answers to all three in one row, with null for no line. */
async function fieldsAtOnce(queries: Queries, { seats, posted, computed }: GradeQuestions): Promise<GradeFields> {
  const { rows } = await queries.execute<Record<keyof GradeFields, Line[] | null>>(
    sql`SELECT ${linesOf(seats)} AS seats, ${linesOf(posted)} AS posted, ${linesOf(computed)} AS computed`,
  );
  const fieldsIn = (lines: Line[] | null) => (lines ?? []).map((line) => Object.values(line));
  const [answer] = rows;
  return { seats: fieldsIn(answer!.seats), posted: fieldsIn(answer!.posted), computed: fieldsIn(answer!.computed) };
}

function linesOf(question: SQL): SQL {
  return sql`(SELECT json_agg(q) FROM (${question}) q)`;
}
