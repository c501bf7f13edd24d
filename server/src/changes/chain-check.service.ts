import { setImmediate } from 'node:timers/promises';
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { chainStart, findChainFault, type ChainedEntry } from '#core/changes';
import type { LogCheckReply } from '#contract/changes';
import { Clock, Transactions, type Queries } from '#server/platform';
import { sha256 } from './change-log.js';
import { LogRepository } from './log.repository.js';

/** Few enough that nobody waits for an answer meanwhile. */
const entriesAtOnce = 250;

/**
 * Walks the whole chain of the log, entry after entry: at each start, and whenever somebody asks for it. The end is compared
 * with where the log says that it ends, so that one that was cut off shows.
 */
@Injectable()
export class ChainCheck implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger(ChainCheck.name);
  private state: LogCheckReply = { state: 'waiting', checked: 0, entries: 0, faultAt: null, checkedAt: null };
  private work: Promise<void> | undefined;
  private isStopping = false;

  constructor(
    private readonly transactions: Transactions,
    private readonly log: LogRepository,
    private readonly clock: Clock,
  ) {}

  onApplicationBootstrap(): void {
    this.start();
  }

  async onApplicationShutdown(): Promise<void> {
    this.isStopping = true;
    await this.work;
  }

  progress(): LogCheckReply {
    return this.state;
  }

  /** Begins a check; one that is under way goes on. */
  start(): LogCheckReply {
    this.work ??= this.walk()
      .catch((error: unknown) => {
        this.logger.error('the log could not be checked', error);
        this.state = { ...this.state, state: 'failed', checkedAt: this.clock.now().toISOString() };
      })
      .finally(() => (this.work = undefined));
    return this.state;
  }

  /** Waits for the check under way. */
  async finished(): Promise<LogCheckReply> {
    await this.work;
    return this.state;
  }

  private async walk(): Promise<void> {
    const queries = this.transactions.reading;
    const head = await this.log.head(queries);
    let [checked, lastHash] = [0, chainStart];
    this.state = { ...this.state, state: 'checking', checked, entries: head.entries, faultAt: null };
    for await (const piece of this.pieces(queries)) {
      const own = piece.filter(({ id }) => id <= head.lastId);
      const fault = findChainFault(own, sha256, lastHash);
      if (fault) return this.settle('broken', checked, fault.id);
      const last = own.at(-1);
      if (!last) break;
      [checked, lastHash] = [checked + own.length, last.hash];
      this.state = { ...this.state, checked };
      await setImmediate();
      if (this.isStopping) return;
    }
    const stranger = await this.log.beyondHead(queries);
    // An end that is missing shows at the entry that should have been the last.
    if (lastHash !== head.hash || checked !== head.entries) this.settle('broken', checked, head.lastId);
    else if (stranger !== null) this.settle('broken', checked, stranger);
    else this.settle('whole', checked, null);
  }

  /** The entries in order; the next ones are read while those before are looked at, as the database has a thread of its own. */
  private async *pieces(queries: Queries): AsyncGenerator<ChainedEntry[]> {
    const read = (after: number) => this.log.entriesAfter(queries, after, entriesAtOnce);
    for (let next = read(0); ;) {
      const piece = await next;
      const last = piece.at(-1);
      if (!last) return;
      next = read(last.id);
      next.catch(() => undefined); // thrown where it is awaited; nobody does after a fault
      yield piece;
    }
  }

  private settle(state: 'whole' | 'broken', checked: number, faultAt: number | null): void {
    this.state = { ...this.state, state, checked, faultAt, checkedAt: this.clock.now().toISOString() };
    if (state === 'broken') this.logger.error(`the log does not hold together at entry ${faultAt}`);
  }
}
