import { setImmediate } from 'node:timers/promises';
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { chainStart, findChainFault } from '#core/changes';
import type { LogCheckReply } from '#contract/changes';
import { Clock, Transactions } from '#server/platform';
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
    let [checked, lastId, lastHash] = [0, 0, chainStart];
    this.state = { ...this.state, state: 'checking', checked, entries: head.entries, faultAt: null };
    while (lastId < head.lastId && !this.isStopping) {
      const piece = await this.log.entriesAfter(queries, lastId, entriesAtOnce);
      const own = piece.filter(({ id }) => id <= head.lastId);
      const fault = findChainFault(own, sha256, lastHash);
      const last = own.at(-1);
      // An end that is missing shows at the entry that should have been the last.
      if (fault || !last) return this.settle('broken', checked, fault?.id ?? head.lastId);
      [checked, lastId, lastHash] = [checked + own.length, last.id, last.hash];
      this.state = { ...this.state, checked };
      await setImmediate();
    }
    if (this.isStopping) return;
    const stranger = await this.log.beyondHead(queries);
    if (lastHash !== head.hash || checked !== head.entries) this.settle('broken', checked, head.lastId);
    else if (stranger !== null) this.settle('broken', checked, stranger);
    else this.settle('whole', checked, null);
  }

  private settle(state: 'whole' | 'broken', checked: number, faultAt: number | null): void {
    this.state = { ...this.state, state, checked, faultAt, checkedAt: this.clock.now().toISOString() };
    if (state === 'broken') this.logger.error(`the log does not hold together at entry ${faultAt}`);
  }
}
