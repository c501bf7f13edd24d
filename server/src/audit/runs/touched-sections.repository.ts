import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { textList, type Queries } from '#server/platform';

/** Things that change nothing an audit looks at; of any other kind that is new here, another audit has to be asked. */
const withoutEffect = [
  'account',
  'audit',
  'audit-rules',
  'audit-task',
  'certificate',
  'different-people',
  'finding-note',
  'gpa-settings',
  'message',
  'nightly-audit',
  'platform',
  'posting-request',
  'shared-audit-rules',
  'stock-comments',
  'waiver',
];

/** What is joined or not: of groups and classes an audit asks, and of the sections that they are of. */
const matches = 'match';

/** Things that are of one section, as grades are, and whose names begin with it. */
const bySection = ['sign-off', 'register'];

/** What was changed since an audit, as the log has it. */
export interface Touched {
  /** Where grades were saved, sheets signed off or taken back, registers kept, and groups of a platform joined. */
  readonly sectionIds: readonly number[];
  /** Whether something else was changed that an audit rests on: the set-up, people, grade books. */
  readonly isBeyond: boolean;
}

@Injectable()
export class TouchedSectionsRepository {
  async since(queries: Queries, startedAt: Date): Promise<Touched> {
    const { rows } = await queries.execute<{ sectionId: number | null }>(sql`
      WITH since AS (
        SELECT DISTINCT split_part(thing, ' ', 1) AS kind, split_part(thing, ' ', 2) AS id FROM change_log
        WHERE at > ${startedAt.toISOString()} AND change_id IS NOT NULL
          AND split_part(thing, ' ', 1) NOT IN ${textList([...withoutEffect, matches])}),
      matched AS (
        SELECT DISTINCT split_part(thing, '/', 2) AS kind, split_part(thing, '/', 3)::int AS id, target.section FROM change_log
        CROSS JOIN LATERAL (VALUES (before ->> 'target'), (after ->> 'target')) AS target (section)
        WHERE at > ${startedAt.toISOString()} AND change_id IS NOT NULL AND thing LIKE ${`${matches} %`})
      SELECT DISTINCT CASE WHEN since.kind IN ${textList(bySection)} THEN split_part(since.id, '/', 1)::int
        ELSE e.section_id END AS "sectionId"
      FROM since LEFT JOIN enrollments e ON since.kind = 'grade' AND e.id = nullif(split_part(since.id, '/', 3), '')::int
      UNION
      SELECT c.section_id FROM matched JOIN platform_names n ON matched.kind = 'group' AND n.id = matched.id
      JOIN platform_classes c ON c.id = n.class_id WHERE c.section_id IS NOT NULL
      UNION
      SELECT section::int FROM matched WHERE kind = 'class' AND section IS NOT NULL`);
    return {
      sectionIds: rows.flatMap(({ sectionId }) => sectionId ?? []),
      isBeyond: rows.some(({ sectionId }) => sectionId === null),
    };
  }
}
