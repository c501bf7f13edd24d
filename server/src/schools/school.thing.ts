import { sql } from 'drizzle-orm';
import { usesInWords, type CountedThing } from '#contract/messages';
import { ThingOf, type Thing } from '#server/changes';
import { intArray, Refusal, registrars, tables, type Queries } from '#server/platform';

const { schools } = tables;

/** A school as the log tells of it; its calendar is a thing of its own. */
export interface SchoolValue {
  readonly code: string;
  readonly name: string;
  readonly shortName: string;
}

/** What keeps a school from being removed: the table, and what one of it is called. */
const uses = [
  ['people', 'person'],
  ['courses', 'course'],
  ['scales', 'scale'],
  ['report_items', 'item'],
  ['learning_platforms', 'learning platform'],
  ['periods', 'period'],
  ['file_imports', 'file'],
  ['mails', 'message'],
] as const satisfies readonly (readonly [string, CountedThing])[];

/** Schools, by their numbers. One that something hangs on is not removed. */
@ThingOf({ kind: 'school', called: 'the school', policy: registrars })
export class SchoolThing implements Thing<SchoolValue> {
  title({ name }: SchoolValue): string {
    return name;
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, SchoolValue>> {
    const rows = await queries
      .select()
      .from(schools)
      .where(sql`${schools.id} = ANY(${intArray(ids.map(Number))})`);
    return new Map(rows.map(({ id, code, name, shortName }) => [String(id), { code, name, shortName }]));
  }

  async check(queries: Queries, values: ReadonlyMap<string, SchoolValue | null>): Promise<void> {
    for (const [id, value] of values) {
      if (value) continue;
      const counts: Partial<Record<CountedThing, number>> = {};
      for (const [table, thing] of uses) {
        const { rows } = await queries.execute<{ count: number }>(
          sql`SELECT count(*)::int AS count FROM ${sql.identifier(table)} WHERE school_id = ${Number(id)}`,
        );
        counts[thing] = rows[0]!.count;
      }
      if (Object.values(counts).every((count) => count === 0)) continue;
      const { name } = (await this.read(queries, [id])).get(id)!;
      const instead = 'Take that out of it first.';
      throw new Refusal('in-use', { what: 'The school', name, uses: usesInWords({ counts }), instead });
    }
  }

  async write(queries: Queries, values: ReadonlyMap<string, SchoolValue | null>): Promise<void> {
    for (const [id, value] of values)
      if (value)
        await queries
          .insert(schools)
          .values({ id: Number(id), ...value })
          .onConflictDoUpdate({ target: schools.id, set: value });
      else await queries.delete(schools).where(sql`${schools.id} = ${Number(id)}`);
  }
}
