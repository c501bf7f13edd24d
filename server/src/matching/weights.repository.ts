import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { MatchDecision } from '#core/matching';
import type { Queries } from '#server/platform';

/** A group of a class with its weight there, in percent; null where the platform weighs nothing. */
export interface WeighedGroup extends Record<string, unknown> {
  readonly id: number;
  readonly classId: number;
  readonly key: string;
  readonly name: string;
  readonly decision: MatchDecision;
  readonly categoryId: number | null;
  readonly weight: string | null;
}

@Injectable()
export class WeightsRepository {
  async joinedClasses(queries: Queries, platformId: number) {
    const { rows } = await queries.execute<{ id: number; title: string; sectionId: number }>(sql`
      SELECT id, title, section_id AS "sectionId" FROM platform_classes
      WHERE platform_id = ${platformId} AND NOT is_gone AND decision = 'joined' ORDER BY title, id`);
    return rows;
  }

  /** By class. */
  async groups(queries: Queries, platformId: number): Promise<ReadonlyMap<number, WeighedGroup[]>> {
    const { rows } = await queries.execute<WeighedGroup>(sql`
      SELECT id, class_id AS "classId", sourced_id AS key, name, decision, category_id AS "categoryId", weight::text AS weight
      FROM platform_names WHERE platform_id = ${platformId} AND kind = 'group' AND NOT is_gone ORDER BY id`);
    const groups = new Map<number, WeighedGroup[]>();
    for (const row of rows) groups.set(row.classId, [...(groups.get(row.classId) ?? []), row]);
    return groups;
  }

  async keep(queries: Queries, platformId: number, id: number, weight: string): Promise<void> {
    await queries.execute(sql`
      UPDATE platform_names SET weight = ${weight}::numeric WHERE id = ${id} AND platform_id = ${platformId}`);
  }
}
