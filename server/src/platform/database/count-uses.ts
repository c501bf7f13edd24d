import { sql } from 'drizzle-orm';
import type { CountedThing, Uses } from '#contract/messages';
import { intArray } from './int-array.js';
import type { Queries } from './open-database.js';

/** What may hang on a thing: the table, its column that names the thing, and what one row of it is called. */
export type UseBy = readonly [table: string, column: string, called: CountedThing];

/** How much of what hangs on things, by their numbers, in the order of `uses`; those on which nothing does are left out. One query. */
export async function countUses(
  queries: Queries,
  uses: readonly UseBy[],
  ids: readonly number[],
): Promise<ReadonlyMap<number, Uses['counts']>> {
  if (ids.length === 0) return new Map();
  const counts = uses.map(
    ([table, column, called], at) => sql`
      SELECT ${sql.identifier(column)} AS id, ${at}::int AS at, ${called}::text AS called, count(*)::int AS count FROM ${sql.identifier(table)}
      WHERE ${sql.identifier(column)} = ANY(${intArray(ids)}) GROUP BY 1`,
  );
  const { rows } = await queries.execute<{ id: number; counts: Record<CountedThing, number> }>(sql`
    SELECT id, json_object_agg(called, count ORDER BY at) AS counts FROM (
      SELECT id, called, min(at) AS at, sum(count)::int AS count FROM (${sql.join(counts, sql` UNION ALL `)}) AS each GROUP BY id, called
    ) AS used GROUP BY id ORDER BY id`);
  return new Map(rows.map(({ id, counts: own }) => [id, own]));
}
