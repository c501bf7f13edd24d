import { Injectable } from '@nestjs/common';
import { asc, desc, eq, gt, sql, type SQL } from 'drizzle-orm';
import { chainStart, differences, findChainFault, type ChainedEntry } from '#core/changes';
import type { ChangeReply, LogCheckReply, LogEntryReply } from '#contract/changes';
import { tables, Transactions, type Actor } from '#server/platform';
import { sha256 } from './change-log.js';
import { kindAndId } from './thing-name.js';
import { Things } from './things.js';

const entriesAtOnce = 5000;
/** As many changes as somebody looks back on at once. */
const changesAtOnce = 50;

@Injectable()
export class HistoryService {
  constructor(
    private readonly transactions: Transactions,
    private readonly things: Things,
  ) {}

  /** The newest changes that somebody made, newest first. */
  changesOf(actor: Actor): Promise<ChangeReply[]> {
    return this.changesWhere(actor, sql`actor_id = ${actor.personId}`);
  }

  /** The newest changes of a thing, by its kind and number. */
  changesOfThing(actor: Actor, thing: string): Promise<ChangeReply[]> {
    return this.changesWhere(actor, sql`change_id IN (SELECT change_id FROM change_log WHERE thing = ${thing})`);
  }

  private async changesWhere(actor: Actor, condition: SQL): Promise<ChangeReply[]> {
    const { changeLog } = tables;
    const newest = sql`SELECT change_id FROM change_log WHERE change_id IS NOT NULL AND ${condition}
      GROUP BY change_id ORDER BY change_id DESC LIMIT ${changesAtOnce}`;
    const rows = await this.transactions.reading
      .select()
      .from(changeLog)
      .where(sql`${changeLog.changeId} IN (${newest})`)
      .orderBy(desc(changeLog.changeId), asc(changeLog.id));
    const isUndone = await this.undoneSince(rows.at(-1)?.changeId ?? 0);
    const numbers = [...new Set(rows.map(({ changeId }) => changeId!))];
    return numbers.map((id): ChangeReply => {
      const own = rows.filter(({ changeId }) => changeId === id);
      const kinds = own.map(({ thing }) => this.things.find(kindAndId(thing)[0]));
      const { at, actor: who, action, why, undoes } = own[0]!;
      return {
        id,
        at: at.toISOString(),
        actor: who,
        action,
        why,
        undoes,
        isUndone: isUndone(id),
        canUndo: !isUndone(id) && kinds.every((kind) => kind?.policy(actor)),
        things: own.map(({ thing, before, after }) => ({
          thing,
          called: this.things.calledOf(thing, before ?? after),
          fields: differences(before, after),
        })),
      };
    });
  }

  /** Whether a change, that one or a later one, was undone and the undo was not. */
  private async undoneSince(changeId: number): Promise<(id: number) => boolean> {
    const { rows } = await this.transactions.reading.execute<{ id: number; undoes: number }>(sql`
      SELECT DISTINCT change_id AS id, undoes FROM change_log WHERE undoes >= ${changeId}`);
    const isUndone = (id: number): boolean => rows.some((undo) => undo.undoes === id && !isUndone(undo.id));
    return isUndone;
  }

  /** The newest entries about a thing, newest first. */
  async historyOf(thing: string): Promise<LogEntryReply[]> {
    const rows = await this.transactions.reading
      .select()
      .from(tables.changeLog)
      .where(eq(tables.changeLog.thing, thing))
      .orderBy(desc(tables.changeLog.id))
      .limit(100);
    return rows.map(({ id, at, actor, action, before, after, hash }) => ({
      id,
      at: at.toISOString(),
      actor,
      action,
      thing,
      before,
      after,
      hash,
    }));
  }

  /** Walks the whole chain, in pieces. */
  async check(): Promise<LogCheckReply> {
    let [entries, lastId, lastHash] = [0, 0, chainStart];
    for (;;) {
      const piece = await this.entriesAfter(lastId);
      const fault = findChainFault(piece, sha256, lastHash);
      if (fault) return { entries: entries + piece.length, isWhole: false, faultAt: fault.id };
      entries += piece.length;
      const last = piece.at(-1);
      if (!last) return { entries, isWhole: true, faultAt: null };
      [lastId, lastHash] = [last.id, last.hash];
    }
  }

  private async entriesAfter(id: number): Promise<ChainedEntry[]> {
    const { changeLog } = tables;
    const rows = await this.transactions.reading
      .select()
      .from(changeLog)
      .where(gt(changeLog.id, id))
      .orderBy(asc(changeLog.id))
      .limit(entriesAtOnce);
    return rows.map(({ changeId, undoes, why, ...row }) => ({
      ...row,
      at: row.at.toISOString(),
      change: changeId === null ? null : { id: changeId, undoes, why },
    }));
  }
}
