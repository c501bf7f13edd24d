import { Injectable } from '@nestjs/common';
import { asc, desc, eq, gt } from 'drizzle-orm';
import { chainStart, findChainFault, type ChainedEntry } from '#core/log';
import type { LogCheckReply, LogEntryReply } from '#contract/log';
import { tables, Transactions } from '#server/platform';
import { sha256 } from './change-log.js';

const entriesAtOnce = 5000;

@Injectable()
export class LogService {
  constructor(private readonly transactions: Transactions) {}

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
    return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
  }
}
