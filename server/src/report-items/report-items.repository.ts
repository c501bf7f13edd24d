import { Injectable } from '@nestjs/common';
import { and, asc, eq, isNull, max, sql } from 'drizzle-orm';
import { decimalOrThrow, formatDecimal, roundings } from '#core/numbers';
import type { Assignment, Exception, ReportItem, Rule } from '#core/report-items';
import type { Precision } from '#core/scales';
import { intArray, nextIds, Refusal, tables, type Queries } from '#server/platform';
import type { Uses } from '#contract/messages';

const {
  categories,
  enrollments,
  grades,
  reportItemExceptions,
  reportItemParts,
  reportItemRules,
  reportItems,
  sections,
} = tables;

@Injectable()
export class ReportItemsRepository {
  /** A school's items in the order of its report cards. */
  async ofSchool(queries: Queries, schoolId: number): Promise<ReportItem[]> {
    const rows = await queries
      .select()
      .from(reportItems)
      .where(eq(reportItems.schoolId, schoolId))
      .orderBy(asc(reportItems.position), asc(reportItems.id));
    const parts = await queries
      .select({ part: reportItemParts })
      .from(reportItemParts)
      .innerJoin(reportItems, eq(reportItems.id, reportItemParts.compositeId))
      .where(eq(reportItems.schoolId, schoolId))
      .orderBy(asc(reportItemParts.position));
    return rows.map(({ createdAt: _createdAt, highestPercent, ...item }) => ({
      ...item,
      highestPercent: decimalOrThrow(highestPercent),
      parts: parts
        .filter(({ part }) => part.compositeId === item.id)
        .map(({ part: { itemId, ordinal, weight } }) => ({ itemId, ordinal, weight: decimalOrThrow(weight) })),
    }));
  }

  /** The categories and standards of a school's own list, in its order. */
  async categoriesOf(queries: Queries, schoolId: number): Promise<{ readonly id: number; readonly name: string }[]> {
    return queries
      .select({ id: categories.id, name: categories.name })
      .from(categories)
      .where(and(eq(categories.schoolId, schoolId), isNull(categories.sectionId)))
      .orderBy(asc(categories.position), asc(categories.id));
  }

  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number): Promise<ReportItem> {
    const [row] = await queries
      .select({ schoolId: reportItems.schoolId })
      .from(reportItems)
      .where(eq(reportItems.id, id));
    const item = row && (await this.ofSchool(queries, row.schoolId)).find((each) => each.id === id);
    if (!item) throw new Refusal('not-found', { what: 'report item', id });
    return item;
  }

  /** In the order in which they count: the later one stands. */
  async rulesOfSchool(queries: Queries, schoolId: number): Promise<Rule[]> {
    const rows = await queries
      .select()
      .from(reportItemRules)
      .where(eq(reportItemRules.schoolId, schoolId))
      .orderBy(asc(reportItemRules.position), asc(reportItemRules.id));
    return rows.map(({ createdAt: _createdAt, ...rule }) => rule);
  }

  async exceptionsOfSchool(queries: Queries, schoolId: number): Promise<Exception[]> {
    const { id, itemId, courseId, effect, reason } = reportItemExceptions;
    return queries
      .select({ id, itemId, courseId, effect, reason })
      .from(reportItemExceptions)
      .innerJoin(reportItems, eq(reportItems.id, itemId))
      .where(eq(reportItems.schoolId, schoolId))
      .orderBy(asc(itemId), asc(courseId));
  }

  /** Puts rules and exceptions in the place of all that the school had. */
  async replaceAssignment(
    queries: Queries,
    schoolId: number,
    rules: readonly Omit<Rule, 'id' | 'schoolId' | 'position'>[],
    exceptions: readonly Omit<Exception, 'id'>[],
  ): Promise<void> {
    await queries.delete(reportItemRules).where(eq(reportItemRules.schoolId, schoolId));
    await queries.execute(sql`
      DELETE FROM report_item_exceptions WHERE item_id IN (SELECT id FROM report_items WHERE school_id = ${schoolId})`);
    const ruleRows = rules.map((rule, index) => ({ ...rule, schoolId, position: index + 1 }));
    if (ruleRows.length > 0) await queries.insert(reportItemRules).values(ruleRows);
    if (exceptions.length > 0) {
      await queries.execute(sql`
        INSERT INTO report_item_exceptions (item_id, course_id, effect, reason)
        SELECT "itemId", "courseId", effect, reason FROM jsonb_to_recordset(${JSON.stringify(exceptions)}::jsonb)
          AS list("itemId" int, "courseId" int, effect text, reason text)`);
    }
  }

  /** Items by their numbers; a number that there is not has none. */
  async byIds(queries: Queries, ids: readonly number[]): Promise<ReportItem[]> {
    const schools = await queries
      .selectDistinct({ id: reportItems.schoolId })
      .from(reportItems)
      .where(sql`${reportItems.id} = ANY(${intArray(ids)})`);
    const found: ReportItem[] = [];
    for (const { id } of schools)
      found.push(...(await this.ofSchool(queries, id)).filter((item) => ids.includes(item.id)));
    return found;
  }

  /** A number that no item has or had. */
  async nextId(queries: Queries): Promise<number> {
    return (await nextIds(queries, 'report_items', 1))[0]!;
  }

  /** The position behind all items of a school. */
  async endOf(queries: Queries, schoolId: number): Promise<number> {
    const [last] = await queries
      .select({ position: max(reportItems.position) })
      .from(reportItems)
      .where(eq(reportItems.schoolId, schoolId));
    return (last?.position ?? 0) + 1;
  }

  /** Makes items, under the numbers that they have, or changes those that are there. */
  async put(queries: Queries, items: readonly ReportItem[]): Promise<void> {
    for (const { id, parts, ordinals, highestPercent, ...facts } of items) {
      const row = {
        ...facts,
        ordinals: ordinals && [...ordinals],
        highestPercent: formatDecimal(highestPercent),
      };
      await queries
        .insert(reportItems)
        .values({ ...row, id })
        .onConflictDoUpdate({ target: reportItems.id, set: row });
      await this.replaceParts(queries, id, parts);
    }
  }

  /** Removes an item; with it goes what cannot be without it. */
  async remove(queries: Queries, id: number): Promise<void> {
    await queries.delete(reportItems).where(eq(reportItems.id, id));
  }

  async assignmentOf(queries: Queries, schoolId: number): Promise<Assignment> {
    return {
      rules: await this.rulesOfSchool(queries, schoolId),
      exceptions: await this.exceptionsOfSchool(queries, schoolId),
    };
  }

  /** Grades posted for each item of a school, by item and course. */
  async postedByCourse(
    queries: Queries,
    schoolId: number,
  ): Promise<{ itemId: number; courseId: number; posted: number }[]> {
    return queries
      .select({ itemId: grades.itemId, courseId: sections.courseId, posted: sql<number>`count(*)::int` })
      .from(grades)
      .innerJoin(reportItems, eq(reportItems.id, grades.itemId))
      .innerJoin(enrollments, eq(enrollments.id, grades.enrollmentId))
      .innerJoin(sections, eq(sections.id, enrollments.sectionId))
      .where(eq(reportItems.schoolId, schoolId))
      .groupBy(grades.itemId, sections.courseId);
  }

  /** What rests on an item: posted and computed grades, files, columns of platforms, composites. */
  async usesOf(queries: Queries, id: number): Promise<Uses> {
    const { rows } = await queries.execute<{ counts: Uses['counts']; composites: string }>(sql`
      SELECT json_build_object(
          'posted grade', (SELECT count(*) FROM grades WHERE item_id = ${id}),
          'sign-off', (SELECT count(*) FROM sign_offs WHERE item_id = ${id}),
          'request', (SELECT count(*) FROM posting_requests WHERE item_id = ${id}),
          'waiver', (SELECT count(*) FROM waivers WHERE item_id = ${id}),
          'reminder', (SELECT count(*) FROM reminders WHERE item_id = ${id}),
          'receipt', (SELECT count(*) FROM receipts WHERE item_id = ${id}),
          'computed grade', (SELECT count(*) FROM computed_grades WHERE item_id = ${id}),
          'file', (SELECT count(*) FROM file_columns WHERE item_id = ${id}),
          'total column of learning platforms', (SELECT count(*) FROM platform_names WHERE item_id = ${id})) AS counts,
        (SELECT coalesce(string_agg(DISTINCT i.name, ', '), '') FROM report_item_parts p
           JOIN report_items i ON i.id = p.composite_id WHERE p.item_id = ${id}) AS composites`);
    const { counts, composites } = rows[0]!;
    return { counts, named: composites === '' ? [] : [`the composite ${composites}`] };
  }

  private async replaceParts(queries: Queries, id: number, parts: ReportItem['parts']): Promise<void> {
    await queries.delete(reportItemParts).where(eq(reportItemParts.compositeId, id));
    const rows = parts.map(({ weight, ...part }, index) => ({
      ...part,
      compositeId: id,
      position: index + 1,
      weight: formatDecimal(weight),
    }));
    if (rows.length > 0) await queries.insert(reportItemParts).values(rows);
  }
}

/** The item's precision as the core wants it. */
export function precisionOf({ digits, rounding }: Pick<ReportItem, 'digits' | 'rounding'>): Precision {
  return { digits, rounding: roundings[rounding] };
}
