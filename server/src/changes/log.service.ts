import { Injectable } from '@nestjs/common';
import type { LogEntryReply, LogReply } from '#contract/changes';
import { Transactions } from '#server/platform';
import { HistoryService } from './history.service.js';
import { LogRepository, type LogFilter, type LogRow } from './log.repository.js';
import { Things } from './things.js';

/** As many entries as the place Log shows at a time. */
const entriesAtOnce = 200;
const entriesOfFile = 2000;
/** A file has no more rows than a spreadsheet opens. */
const mostRowsOfFile = 1_000_000;

/** The log as it is looked through: entry by entry, filtered, and as a file. */
@Injectable()
export class LogService {
  constructor(
    private readonly transactions: Transactions,
    private readonly log: LogRepository,
    private readonly history: HistoryService,
    private readonly things: Things,
  ) {}

  async page(filter: LogFilter, before: number | undefined): Promise<LogReply> {
    const queries = this.transactions.reading;
    const rows = await this.log.page(queries, filter, before, entriesAtOnce);
    return {
      entries: await this.repliesOf(rows),
      hasMore: rows.length === entriesAtOnce,
      people: await this.log.people(queries),
      kinds: this.things.kinds(),
    };
  }

  /** The same entries as the rows of a file, in pieces, so that a million of them never stand in memory together. */
  async *rows(filter: LogFilter): AsyncGenerator<readonly string[][]> {
    yield [['Number', 'Time', 'Who', 'What', 'Thing', 'Fact', 'Before', 'After', 'Change', 'Undoes', 'Reason', 'Hash']];
    let before: number | undefined;
    for (let written = 0; written < mostRowsOfFile;) {
      const rows = await this.log.page(this.transactions.reading, filter, before, entriesOfFile);
      const lines = (await this.repliesOf(rows)).flatMap((entry) => {
        const { id, at, actor, action, called, change, undoes, why, hash, fields } = entry;
        const facts = fields.length > 0 ? fields : [{ field: '', before: '', after: '' }];
        return facts.map((fact) => [
          String(id),
          at,
          actor,
          action,
          called,
          fact.field,
          fact.before,
          fact.after,
          String(change ?? ''),
          String(undoes ?? ''),
          why ?? '',
          hash,
        ]);
      });
      if (lines.length > 0) yield lines;
      if (rows.length < entriesOfFile) return;
      written += lines.length;
      before = rows.at(-1)!.id;
    }
  }

  private async repliesOf(rows: readonly LogRow[]): Promise<LogEntryReply[]> {
    const names = await this.things.namesOf(
      this.transactions.reading,
      rows.map(({ thing }) => thing),
    );
    return rows.map((row) => {
      const { id, at, actor, action, changeId, undoes, why, hash } = row;
      const told = this.history.told(row, names);
      return { id, at: at.toISOString(), actor, action, change: changeId, undoes, why, hash, ...told };
    });
  }
}
