import { Injectable } from '@nestjs/common';
import { eq, sql, type SQL } from 'drizzle-orm';
import type { MarkChangeBody, PostingAnswerRequest, PostingRequestReply } from '#contract/posting';
import { Clock, instantText, intArray, spokenNameOf, tables, type Actor, type Queries } from '#server/platform';
import { sheetId, type SheetPlace } from './sheet-place.js';

const { postingRequests } = tables;
/** As many of a sheet as are looked back on. */
const newest = 20;

type Found = PostingRequestReply & SheetPlace & { readonly askedById: number };

/** What people ask registrars to post for them. */
@Injectable()
export class PostingRequestsRepository {
  constructor(private readonly clock: Clock) {}

  async add(
    queries: Queries,
    actor: Actor,
    place: SheetPlace,
    asked: { readonly changes: readonly MarkChangeBody[]; readonly note: string; readonly askedAt: Date },
  ): Promise<number> {
    const [row] = await queries
      .insert(postingRequests)
      .values({ ...place, ...asked, askedBy: actor.personId })
      .returning({ id: postingRequests.id });
    return row!.id;
  }

  async answer(queries: Queries, actor: Actor, id: number, answered: PostingAnswerRequest): Promise<void> {
    const { state, answer } = answered;
    await queries
      .update(postingRequests)
      .set({ state, answer: answer.trim(), answeredBy: actor.personId, answeredAt: this.clock.now() })
      .where(eq(postingRequests.id, id));
  }

  /** Those of a sheet, open ones first, then the newest. */
  ofSheet(queries: Queries, actor: Pick<Actor, 'personId'>, place: SheetPlace): Promise<Found[]> {
    const { sectionId, itemId, periodId } = place;
    const condition = sql`q.section_id = ${sectionId} AND q.item_id = ${itemId} AND q.period_id = ${periodId}`;
    return this.where(queries, actor, sql`${condition} ORDER BY q.state <> 'open', q.id DESC LIMIT ${newest}`);
  }

  /** One of them, which nobody else answers until the transaction ends; undefined where there is none. */
  async hold(queries: Queries, actor: Pick<Actor, 'personId'>, id: number): Promise<Found | undefined> {
    await queries.execute(sql`SELECT id FROM posting_requests WHERE id = ${id} FOR UPDATE`);
    return (await this.where(queries, actor, sql`q.id = ${id}`))[0];
  }

  /** How many are open, by the name of the sheet. */
  async openOf(
    queries: Queries,
    periodId: number,
    sectionIds: readonly number[],
  ): Promise<ReadonlyMap<string, number>> {
    const { rows } = await queries.execute<SheetPlace & { count: number } & Record<string, unknown>>(sql`
      SELECT section_id AS "sectionId", item_id AS "itemId", period_id AS "periodId", count(*)::int AS count FROM posting_requests
      WHERE period_id = ${periodId} AND section_id = ANY(${intArray(sectionIds)}) AND state = 'open' GROUP BY 1, 2, 3`);
    return new Map(rows.map(({ count, ...place }) => [sheetId(place), count]));
  }

  private async where(queries: Queries, { personId }: Pick<Actor, 'personId'>, condition: SQL): Promise<Found[]> {
    const { rows } = await queries.execute<Found & Record<string, unknown>>(sql`
      SELECT q.id, q.section_id AS "sectionId", q.item_id AS "itemId", q.period_id AS "periodId",
        ${spokenNameOf('a')} AS "askedBy", q.asked_by AS "askedById", q.asked_by = ${personId} AS "isOwn",
        ${instantText('q.asked_at')} AS "askedAt", q.changes, q.note, q.state, q.answer,
        CASE WHEN w.id IS NOT NULL THEN ${spokenNameOf('w')} END AS "answeredBy"
      FROM posting_requests q JOIN people a ON a.id = q.asked_by LEFT JOIN people w ON w.id = q.answered_by
      WHERE ${condition}`);
    return rows;
  }
}
