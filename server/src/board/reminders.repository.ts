import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { SheetReminderReply } from '#contract/board';
import { sheetId, type SheetPlace } from '#server/posting';
import {
  Clock,
  instantText,
  intArray,
  nameOrderOf,
  spokenNameOf,
  tables,
  type Actor,
  type Queries,
} from '#server/platform';

const { reminders } = tables;

/** Of which sheet who was reminded, by which message. */
export interface NewReminder extends SheetPlace {
  readonly teacherId: number;
  readonly mailId: number;
}

@Injectable()
export class RemindersRepository {
  constructor(private readonly clock: Clock) {}

  async add(queries: Queries, actor: Actor, added: readonly NewReminder[]): Promise<void> {
    const by = { sentBy: actor.personId, sentAt: this.clock.now() };
    if (added.length > 0) await queries.insert(reminders).values(added.map((each) => ({ ...each, ...by })));
  }

  /** Staff as messages speak to them, by name. */
  async teachers(
    queries: Queries,
    ids: readonly number[],
  ): Promise<{ readonly id: number; readonly name: string; readonly address: string }[]> {
    const { rows } = await queries.execute<{ id: number; name: string; address: string }>(sql`
      SELECT p.id, ${spokenNameOf('p')} AS name, p.email AS address FROM people p
      WHERE p.id = ANY(${intArray(ids)}) AND p.kind = 'staff' ORDER BY ${nameOrderOf('p')}, p.id`);
    return rows;
  }

  /** By the name of the sheet: how often its teachers were reminded, and of the last time when and by whom. */
  async ofSections(
    queries: Queries,
    periodId: number,
    sectionIds: readonly number[],
  ): Promise<ReadonlyMap<string, SheetReminderReply>> {
    const { rows } = await queries.execute<SheetReminderReply & SheetPlace & Record<string, unknown>>(sql`
      SELECT DISTINCT ON (m.section_id, m.item_id) m.section_id AS "sectionId", m.item_id AS "itemId", m.period_id AS "periodId",
        (count(*) OVER (PARTITION BY m.section_id, m.item_id))::int AS times,
        ${instantText('m.sent_at')} AS at, ${spokenNameOf('p')} AS by
      FROM reminders m JOIN people p ON p.id = m.sent_by
      WHERE m.period_id = ${periodId} AND m.section_id = ANY(${intArray(sectionIds)})
      ORDER BY m.section_id, m.item_id, m.id DESC`);
    return new Map(rows.map(({ times, at, by, ...place }) => [sheetId(place), { times, at, by }]));
  }
}
