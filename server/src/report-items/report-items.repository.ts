import { Injectable } from '@nestjs/common';
import { and, asc, eq, isNull, max, sql } from 'drizzle-orm';
import { decimalOrThrow, formatDecimal, roundings } from '#core/numbers';
import type { Exception, ReportItem, Rule } from '#core/report-items';
import type { Precision } from '#core/scales';
import { rowsToRemove, type RemovedRows } from '#server/changes';
import { counted, Refusal, tables, type Queries } from '#server/platform';

/** An item as it is kept, with the version that guards against saving over somebody else's work. */
export interface KeptItem extends ReportItem {
  readonly version: number;
}

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
  async ofSchool(queries: Queries, schoolId: number): Promise<KeptItem[]> {
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
    return rows.map(({ createdAt: _createdAt, ...item }) => ({
      ...item,
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
  async byIdOrThrow(queries: Queries, id: number): Promise<KeptItem> {
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

  /** Adds an item at the end of the school's report cards. @returns its number */
  async add(queries: Queries, item: Omit<ReportItem, 'id' | 'position'>): Promise<number> {
    const [last] = await queries
      .select({ position: max(reportItems.position) })
      .from(reportItems)
      .where(eq(reportItems.schoolId, item.schoolId));
    const { parts, ordinals, ...row } = item;
    const position = (last?.position ?? 0) + 1;
    const [added] = await queries
      .insert(reportItems)
      .values({ ...row, ordinals: ordinals && [...ordinals], position })
      .returning({ id: reportItems.id });
    await this.replaceParts(queries, added!.id, parts);
    return added!.id;
  }

  /** Whether the item still had the version expected, and so was changed. */
  async change(queries: Queries, item: ReportItem, version: number): Promise<boolean> {
    const { id, parts, ordinals, ...row } = item;
    const changed = await queries
      .update(reportItems)
      .set({ ...row, ordinals: ordinals && [...ordinals], version: version + 1 })
      .where(and(eq(reportItems.id, id), eq(reportItems.version, version)))
      .returning({ id: reportItems.id });
    if (changed.length === 1) await this.replaceParts(queries, id, parts);
    return changed.length === 1;
  }

  /** Takes an item out with its rules, exceptions and windows, and tells what went. */
  async remove(queries: Queries, id: number): Promise<RemovedRows> {
    const hanging = ['report_item_rules', 'report_item_exceptions', 'posting_windows'];
    const removed = await rowsToRemove(queries, [
      { table: 'report_items', where: sql`t.id = ${id}` },
      { table: 'report_item_parts', where: sql`t.composite_id = ${id}` },
      ...hanging.map((table) => ({ table, where: sql`t.item_id = ${id}` })),
    ]);
    await queries.delete(reportItems).where(eq(reportItems.id, id));
    return removed;
  }

  async order(queries: Queries, itemIds: readonly number[]): Promise<void> {
    await queries.execute(sql`
      UPDATE report_items SET position = list.place
      FROM unnest(${`{${itemIds.join(',')}}`}::int[]) WITH ORDINALITY AS list(id, place) WHERE report_items.id = list.id`);
  }

  /** Takes over the windows of another item, for the periods in which both are posted. */
  async copyWindows(queries: Queries, fromItemId: number, itemId: number, periodIds: readonly number[]): Promise<void> {
    await queries.execute(sql`
      INSERT INTO posting_windows (item_id, period_id, opens_at, closes_at, grace_until, late_posters, early_reason)
      SELECT ${itemId}, period_id, opens_at, closes_at, grace_until, late_posters, early_reason FROM posting_windows
      WHERE item_id = ${fromItemId} AND period_id = ANY(${`{${periodIds.join(',')}}`}::int[])`);
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

  /** What hangs on an item: posted and computed grades, files, composites. Empty when it can go. */
  async usesOf(queries: Queries, id: number): Promise<string> {
    const { rows } = await queries.execute<{ uses: string }>(sql`
      SELECT concat_ws(' and ', ${counted(sql`g.n`, 'posted grade')},
        ${counted(sql`c.n`, 'computed grade')}, ${counted(sql`f.n`, 'file')},
        ${counted(sql`j.n`, 'total column of learning platforms', 'total columns of learning platforms')},
        CASE WHEN p.names IS NOT NULL THEN 'the composite ' || p.names END) AS uses
      FROM (SELECT count(*) AS n FROM grades WHERE item_id = ${id}) g,
        (SELECT count(*) AS n FROM computed_grades WHERE item_id = ${id}) c,
        (SELECT count(*) AS n FROM file_columns WHERE item_id = ${id}) f,
        (SELECT count(*) AS n FROM platform_names WHERE item_id = ${id}) j,
        (SELECT string_agg(DISTINCT i.name, ', ') AS names FROM report_item_parts p
           JOIN report_items i ON i.id = p.composite_id WHERE p.item_id = ${id}) p`);
    return rows[0]!.uses;
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
