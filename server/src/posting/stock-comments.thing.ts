import { asc, inArray } from 'drizzle-orm';
import { ThingOf, type Thing } from '#server/changes';
import { tables, type Queries } from '#server/platform';

const { stockComments } = tables;

/** The stock comments of a school, in their order, by the school's number. */
@ThingOf({
  kind: 'stock-comments',
  called: 'the stock comments',
  change: 'change-set-up',
  see: 'read-set-up',
  at: (id) => ({ kind: 'school', id: Number(id) }),
})
export class StockCommentsThing implements Thing<readonly string[]> {
  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, readonly string[]>> {
    const rows = await queries
      .select()
      .from(stockComments)
      .where(inArray(stockComments.schoolId, ids.map(Number)))
      .orderBy(asc(stockComments.position));
    const found = new Map<string, string[]>();
    for (const { schoolId, text } of rows) found.set(String(schoolId), [...(found.get(String(schoolId)) ?? []), text]);
    return found;
  }

  async write(queries: Queries, values: ReadonlyMap<string, readonly string[] | null>): Promise<void> {
    await queries.delete(stockComments).where(inArray(stockComments.schoolId, [...values.keys()].map(Number)));
    const rows = [...values].flatMap(([id, texts]) =>
      (texts ?? []).map((text, at) => ({ schoolId: Number(id), position: at + 1, text })),
    );
    if (rows.length > 0) await queries.insert(stockComments).values(rows);
  }

  async check(): Promise<void> {}
}
