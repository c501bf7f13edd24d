import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { chainStart } from '#core/changes';
import type { LogCheckReply } from '#contract/changes';
import { Clock, ThreadPool, Transactions, workerFile } from '#server/platform';
import type { CheckedPiece } from './chain-worker.js';
import { LogRepository } from './log.repository.js';

const chainWorker = workerFile(new URL('./chain-worker.js', import.meta.url));

/** Few enough that nobody waits for the database meanwhile. */
const entriesAtOnce = 1000;

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
    private readonly threads: ThreadPool,
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
    // From now on, not from when the first answer is there: whoever asked for it is not told what was found before.
    this.state = { ...this.state, state: 'checking', checked: 0, faultAt: null };
    const queries = this.transactions.reading;
    const head = await this.log.head(queries);
    let [checked, lastHash] = [0, chainStart];
    this.state = { ...this.state, entries: head.entries };
    for await (const text of this.pieces(head.lastId)) {
      const piece = await this.threads.run<CheckedPiece>(chainWorker, { text, startsAfter: lastHash });
      checked += piece.checked;
      if (piece.faultAt !== null) return this.settle('broken', checked, piece.faultAt);
      lastHash = piece.lastHash;
      this.state = { ...this.state, checked };
      if (this.isStopping) return;
    }
    const stranger = await this.log.beyondHead(queries);
    // An end that is missing shows at the entry that should have been the last.
    if (lastHash !== head.hash || checked !== head.entries) this.settle('broken', checked, head.lastId);
    else if (stranger !== null) this.settle('broken', checked, stranger);
    else this.settle('whole', checked, null);
  }

  /** The log in order, piece by piece; the next one is read while the one before is looked at. */
  private async *pieces(lastId: number): AsyncGenerator<Buffer> {
    const read = (after: number) => this.log.chainTextAfter(after, lastId, entriesAtOnce);
    for (let next = read(0); ;) {
      const piece = await next;
      if (piece.length === 0) return;
      next = read(idOfLastLine(piece));
      next.catch(() => undefined); // thrown where it is awaited; nobody does after a fault
      yield piece;
    }
  }

  private settle(state: 'whole' | 'broken', checked: number, faultAt: number | null): void {
    this.state = { ...this.state, state, checked, faultAt, checkedAt: this.clock.now().toISOString() };
    if (state === 'broken') this.logger.error(`the log does not hold together at entry ${faultAt}`);
  }
}

/** A line begins with its id and ends with a line break; there is none within. */
function idOfLastLine(text: Buffer): number {
  const start = text.lastIndexOf('\n', text.length - 2) + 1;
  return Number(text.toString('latin1', start, text.indexOf('\t', start)));
}
