import { sql } from 'drizzle-orm';
import type { Queries } from '#server/platform';

export type IdKind = 'school' | 'period' | 'course' | 'section' | 'enrollment' | 'category' | 'assignment' | 'scale';

const tableOf: Readonly<Record<IdKind, string>> = {
  school: 'schools',
  period: 'periods',
  course: 'courses',
  section: 'sections',
  enrollment: 'enrollments',
  category: 'categories',
  assignment: 'assignments',
  scale: 'scales',
};

/** A session, category or course of a zip may be several schools': each that uses one has its own of it. */
const isOfSchool: readonly IdKind[] = ['period', 'category', 'course'];

/** Whose number of ours a foreign id is; new ones are given out and kept. */
export class ExchangeIds {
  private constructor(
    private readonly queries: Queries,
    private readonly ours: ReadonlyMap<IdKind, Map<string, number>>,
    readonly people: Map<string, number>,
  ) {}

  /** Keeps the ids that we made up ourselves, so that all there are can be looked up, and reads them. */
  static async read(queries: Queries): Promise<ExchangeIds> {
    const ours = new Map<IdKind, Map<string, number>>();
    for (const kind of Object.keys(tableOf) as IdKind[]) {
      const table = sql.identifier(tableOf[kind]);
      const own = kind === 'school' ? sql`t.code` : sql`${`${kind}-`}::text || t.id`;
      await queries.execute(sql`
        INSERT INTO sourced_ids (kind, our_id, sourced_id) SELECT ${kind}, t.id, ${own} FROM ${table} t
        ON CONFLICT (kind, our_id) DO NOTHING`);
      const school = isOfSchool.includes(kind) ? sql`t.school_id || '|' || ` : sql``;
      const { rows } = await queries.execute<{ key: string; id: number }>(sql`
        SELECT ${school}i.sourced_id AS key, t.id FROM sourced_ids i JOIN ${table} t ON t.id = i.our_id WHERE i.kind = ${kind}`);
      ours.set(kind, new Map(rows.map(({ key, id }) => [key, id])));
    }
    const { rows } = await queries.execute<{ key: string; id: number }>(sql`SELECT sourced_id AS key, id FROM people`);
    return new ExchangeIds(queries, ours, new Map(rows.map(({ key, id }) => [key, id])));
  }

  /** The same ids, given out in a transaction. */
  within(queries: Queries): ExchangeIds {
    return new ExchangeIds(queries, this.ours, this.people);
  }

  of(kind: IdKind, sourcedId: string | undefined, schoolId?: number): number | undefined {
    return this.ours.get(kind)!.get(keyOf(kind, sourcedId ?? '', schoolId));
  }

  /** Numbers for things that are about to be written. */
  async give(
    kind: IdKind,
    wanted: readonly { readonly sourcedId: string; readonly schoolId?: number }[],
  ): Promise<number[]> {
    if (wanted.length === 0) return [];
    const ids = await this.next(tableOf[kind], wanted.length);
    const rows = wanted.map(({ sourcedId }, at) => ({ sourcedId, id: ids[at]! }));
    await this.queries.execute(sql`
      INSERT INTO sourced_ids (kind, our_id, sourced_id) SELECT ${kind}, n.id, n."sourcedId"
      FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) AS n (id int, "sourcedId" text)`);
    wanted.forEach(({ sourcedId, schoolId }, at) =>
      this.ours.get(kind)!.set(keyOf(kind, sourcedId, schoolId), ids[at]!),
    );
    return ids;
  }

  async givePeople(sourcedIds: readonly string[]): Promise<number[]> {
    const ids = sourcedIds.length === 0 ? [] : await this.next('people', sourcedIds.length);
    sourcedIds.forEach((sourcedId, at) => this.people.set(sourcedId, ids[at]!));
    return ids;
  }

  private async next(table: string, count: number): Promise<number[]> {
    const { rows } = await this.queries.execute<{ id: number }>(sql`
      SELECT nextval(pg_get_serial_sequence(${table}, 'id'))::int AS id FROM generate_series(1, ${count})`);
    return rows.map(({ id }) => id);
  }
}

function keyOf(kind: IdKind, sourcedId: string, schoolId: number | undefined): string {
  return isOfSchool.includes(kind) ? `${schoolId}|${sourcedId}` : sourcedId;
}
