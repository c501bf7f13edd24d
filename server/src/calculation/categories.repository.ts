import { Injectable } from '@nestjs/common';
import { asc, eq, inArray, sql } from 'drizzle-orm';
import type { CategoryBody, CategoryReply } from '#contract/calculation';
import { tables, type Queries } from '#server/platform';

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

  /** Writes a list in its order; new ones get their numbers. */
  async write(
    queries: Queries,
    place: { readonly schoolId: number; readonly sectionId: number | null },
    bodies: readonly CategoryBody[],
  ): Promise<void> {
    for (const [at, { id, ...body }] of bodies.entries()) {
      const row = { ...body, ...place, position: at + 1 };
      if (id === null) await queries.insert(categories).values(row);
      else await queries.update(categories).set(row).where(eq(categories.id, id));
    }
  }

  async remove(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length > 0) await queries.delete(categories).where(inArray(categories.id, [...ids]));
  }
}
