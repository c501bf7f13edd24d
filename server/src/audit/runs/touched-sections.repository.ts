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
  'match',
  'message',
  'nightly-audit',
  'platform',
  'posting-request',
  'shared-audit-rules',
  'stock-comments',
  'waiver',
];

/** Things that are of one section, as grades are, and whose names begin with it. */
const bySection = ['sign-off', 'register'];

/** What was changed since an audit, as the log has it. */
export interface Touched {
  /** Where grades were saved, sheets signed off or taken back, and registers kept. */
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
          AND split_part(thing, ' ', 1) NOT IN ${textList(withoutEffect)})
      SELECT DISTINCT CASE WHEN since.kind IN ${textList(bySection)} THEN split_part(since.id, '/', 1)::int
        ELSE e.section_id END AS "sectionId"
      FROM since LEFT JOIN enrollments e ON since.kind = 'grade' AND e.id = nullif(split_part(since.id, '/', 3), '')::int`);
    return {
      sectionIds: rows.flatMap(({ sectionId }) => sectionId ?? []),
      isBeyond: rows.some(({ sectionId }) => sectionId === null),
    };
  }
}
