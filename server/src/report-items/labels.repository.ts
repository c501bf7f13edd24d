import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Queries } from '#server/platform';

/** A scale with the labels of its newest version that are not switched off, from the top. */
export interface ScaleLabels extends Record<string, unknown> {
  readonly id: number;
  readonly name: string;
  readonly labels: readonly string[];
  /** What families read for each label. */
  readonly descriptors: readonly string[];
}

@Injectable()
export class LabelsRepository {
  /** The scales that a school's items can use: its own and the district's. */
  async scalesOf(queries: Queries, schoolId: number): Promise<ScaleLabels[]> {
    const { rows } = await queries.execute<ScaleLabels>(sql`
      SELECT s.id, s.name, coalesce(b.labels, '[]'::jsonb) AS labels, coalesce(b.descriptors, '[]'::jsonb) AS descriptors
      FROM scales s
      LEFT JOIN LATERAL (SELECT id FROM scale_versions WHERE scale_id = s.id ORDER BY number DESC LIMIT 1) v ON true
      LEFT JOIN LATERAL (SELECT jsonb_agg(label ORDER BY lowest DESC NULLS LAST, position) AS labels,
                                jsonb_agg(descriptor ORDER BY lowest DESC NULLS LAST, position) AS descriptors
                         FROM bands WHERE version_id = v.id AND NOT is_off) b ON true
      WHERE s.school_id = ${schoolId} OR s.school_id IS NULL
      ORDER BY s.name, s.id`);
    return rows;
  }
}
