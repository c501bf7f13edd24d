import { Injectable } from '@nestjs/common';
import { asc, eq, inArray, sql } from 'drizzle-orm';
import type { CategoryReply } from '#contract/calculation';
import { intArray, tables, type Queries } from '#server/platform';
import type { CategoryList } from './categories.thing.js';
import type { CategoryPlace } from './category-place.js';

const { assignments, categories } = tables;

@Injectable()
export class CategoriesRepository {
  /** All categories of a school: its own in their order, then those of sections. */
  async ofSchool(queries: Queries, schoolId: number): Promise<CategoryReply[]> {
    return queries
      .select({
        id: categories.id,
        name: categories.name,
        tint: categories.tint,
        isActive: categories.isActive,
        sectionId: categories.sectionId,
        assignments: sql<number>`(SELECT count(*)::int FROM ${assignments} a WHERE a.category_id = categories.id)`,
      })
      .from(categories)
      .where(eq(categories.schoolId, schoolId))
      .orderBy(sql`${categories.sectionId} NULLS FIRST`, asc(categories.position), asc(categories.id));
  }

  /** How many scores stand in each of the categories that have any. */
  async scoresOf(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, number>> {
    if (ids.length === 0) return new Map();
    const rows = await queries
      .select({ id: assignments.categoryId, count: sql<number>`count(${tables.scores.assignmentId})::int` })
      .from(assignments)
      .leftJoin(tables.scores, eq(tables.scores.assignmentId, assignments.id))
      .where(inArray(assignments.categoryId, [...ids]))
      .groupBy(assignments.categoryId);
    return new Map(rows.map(({ id, count }) => [id, count]));
  }

  /** The report items that take this category by itself, named in their order; empty for none. */
  async itemsTaking(queries: Queries, id: number): Promise<string> {
    const rows = await queries
      .select({ name: tables.reportItems.name })
      .from(tables.reportItems)
      .where(eq(tables.reportItems.categoryId, id))
      .orderBy(asc(tables.reportItems.position));
    return rows.map(({ name }) => name).join(', ');
  }

  /** How many groups of learning platforms feed a category, or go there for want of another. */
  async platformUses(queries: Queries, id: number): Promise<number> {
    const { rows } = await queries.execute<{ count: number }>(sql`
      SELECT ((SELECT count(*) FROM platform_names WHERE category_id = ${id})
        + (SELECT count(*) FROM learning_platforms WHERE default_category_id = ${id}))::int AS count`);
    return rows[0]!.count;
  }

  /** One list in its order. */
  async listOf(queries: Queries, { schoolId, sectionId }: CategoryPlace): Promise<CategoryList> {
    const all = await this.ofSchool(queries, schoolId);
    return all
      .filter((each) => each.sectionId === sectionId)
      .map(({ id, name, tint, isActive }) => ({ id, name, tint, isActive }));
  }

  /** Writes a list in its order in the place of the one before. */
  async replace(queries: Queries, place: CategoryPlace, list: CategoryList): Promise<void> {
    const { schoolId, sectionId } = place;
    await queries.execute(sql`
      DELETE FROM categories WHERE school_id = ${schoolId} AND section_id IS NOT DISTINCT FROM ${sectionId}
        AND id <> ALL(${intArray(list.map(({ id }) => id))})`);
    if (list.length === 0) return;
    await queries
      .insert(categories)
      .values(list.map((each, at) => ({ ...each, ...place, position: at + 1 })))
      .onConflictDoUpdate({
        target: categories.id,
        set: {
          name: sql`excluded.name`,
          tint: sql`excluded.tint`,
          isActive: sql`excluded.is_active`,
          position: sql`excluded.position`,
        },
      });
  }
}
