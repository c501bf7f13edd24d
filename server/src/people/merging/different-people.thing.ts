import { sql } from 'drizzle-orm';
import { ThingOf, type Thing } from '#server/changes';
import { intArray, spokenNameOf, type PlaceOf, type Queries } from '#server/platform';

/** Two records that look alike and are of two people. */
export interface DifferentPeople {
  /** The lower number. */
  readonly oneId: number;
  readonly otherId: number;
}

/** By which the log knows a pair: "12-40". */
export function idOfPair(a: number, b: number): string {
  return `${Math.min(a, b)}-${Math.max(a, b)}`;
}

export function pairOfId(id: string): DifferentPeople {
  const [oneId, otherId] = id.split('-').map(Number);
  return { oneId: oneId!, otherId: otherId! };
}

/** Pairs of records that somebody looked at and left two. */
@ThingOf({ kind: 'different-people', called: 'two people', change: 'change-people', see: 'read-people' })
export class DifferentPeopleThing implements Thing<DifferentPeople> {
  within({ oneId, otherId }: DifferentPeople): PlaceOf[] {
    return [oneId, otherId].map((id) => ({ kind: 'person', id }));
  }

  async names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const people = intArray(ids.map(pairOfId).flatMap(({ oneId, otherId }) => [oneId, otherId]));
    const { rows } = await queries.execute<{ id: number; name: string }>(
      sql`SELECT p.id, ${spokenNameOf('p')} AS name FROM people p WHERE p.id = ANY(${people})`,
    );
    const nameOf = new Map(rows.map(({ id, name }) => [id, name]));
    return new Map(
      ids.map((id) => {
        const { oneId, otherId } = pairOfId(id);
        return [id, `${nameOf.get(oneId)} and ${nameOf.get(otherId)}`];
      }),
    );
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, DifferentPeople>> {
    const ones = intArray(ids.map((id) => pairOfId(id).oneId));
    const { rows } = await queries.execute<{ oneId: number; otherId: number }>(sql`
      SELECT one_id AS "oneId", other_id AS "otherId" FROM different_people WHERE one_id = ANY(${ones})`);
    const wanted = new Set(ids);
    return new Map(
      rows.map((pair) => [idOfPair(pair.oneId, pair.otherId), pair] as const).filter(([id]) => wanted.has(id)),
    );
  }

  async check(): Promise<void> {
    // Any two may be said to be two.
  }

  async write(queries: Queries, values: ReadonlyMap<string, DifferentPeople | null>): Promise<void> {
    const parted = [...values].filter(([, pair]) => pair !== null).map(([id]) => pairOfId(id));
    const joined = [...values].filter(([, pair]) => pair === null).map(([id]) => pairOfId(id));
    const shape = sql`("oneId" int, "otherId" int)`;
    await queries.execute(sql`
      DELETE FROM different_people d USING jsonb_to_recordset(${JSON.stringify(joined)}::jsonb) AS n ${shape}
      WHERE d.one_id = n."oneId" AND d.other_id = n."otherId"`);
    await queries.execute(sql`
      INSERT INTO different_people (one_id, other_id)
      SELECT n."oneId", n."otherId" FROM jsonb_to_recordset(${JSON.stringify(parted)}::jsonb) AS n ${shape}`);
  }

  /** All pairs, or those of one record. */
  async pairs(queries: Queries, personId?: number): Promise<string[]> {
    const of = personId === undefined ? sql`` : sql`WHERE ${personId} IN (one_id, other_id)`;
    const { rows } = await queries.execute<{ id: string }>(
      sql`SELECT one_id || '-' || other_id AS id FROM different_people ${of} ORDER BY one_id, other_id`,
    );
    return rows.map(({ id }) => id);
  }
}
