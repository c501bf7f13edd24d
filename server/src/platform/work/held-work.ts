import { randomUUID } from 'node:crypto';
import { Logger } from '@nestjs/common';
import type { OpenDatabase } from '../database/open-database.js';
import { leaseSeconds, type Leases } from './leases.js';
import type { JobTry } from './queue-worker.js';
import type { WorkQueue } from './work-queue.js';

const renewMilliseconds = (leaseSeconds * 1000) / 4;

/** The thing was stopped or let go of, or another server works on it now: nothing more may be kept. */
export class WorkLost extends Error {}

export interface HeldThing {
  /** Name of its jobs. */
  readonly job: string;
  readonly leases: Leases;
  /** Does what is still to do, in transactions of its own that look whether the worker still holds the thing. */
  work(id: number, worker: string, signal: AbortSignal): Promise<void>;
  /** Keeps why the work broke off. What it throws on is tried again. */
  tellProblem(id: number, error: unknown, isLastTry: boolean): Promise<void>;
}

/**
 * Long work on a thing that stands in the database: one server at a time works on it, holding it by a lease, and another
 * takes it up where the first one left it, should that one fall.
 */
export class HeldWork {
  private readonly worker = randomUUID();
  private readonly logger: Logger;
  private readonly underWay = new Map<number, { readonly stop: AbortController; readonly ended: Promise<void> }>();

  constructor(
    private readonly database: OpenDatabase,
    private readonly queue: WorkQueue,
    private readonly thing: HeldThing,
  ) {
    this.logger = new Logger(thing.job);
  }

  /** From now on this server takes such work; and, looking once a minute, what a fallen server left behind. */
  async take(): Promise<void> {
    const { job, leases } = this.thing;
    await this.queue.take(job, (data, each) => this.work((data as { id: number }).id, each));
    if (this.database.dump !== null) await leases.releaseAll(this.database.queries);
    await this.takeUpAbandoned();
    const abandoned = `abandoned-${job}`;
    await this.queue.take(abandoned, () => this.takeUpAbandoned());
    await this.queue.askEveryMinute(abandoned);
    await this.queue.ask(abandoned, {}, leaseSeconds + 1);
  }

  async begin(id: number): Promise<void> {
    await this.queue.ask(this.thing.job, { id });
  }

  private async takeUpAbandoned(): Promise<void> {
    for (const id of await this.thing.leases.abandoned(this.database.queries))
      if (!this.underWay.has(id)) await this.begin(id);
  }

  /** Breaks off what this server does for the thing at this moment; that it is stopped must stand in the database. */
  interrupt(id: number): void {
    this.underWay.get(id)?.stop.abort('stop');
  }

  /** Works on it here and now, once this server has let go of what it did for it before. */
  async workNow(id: number): Promise<void> {
    this.interrupt(id);
    await this.underWay.get(id)?.ended;
    await this.work(id, { signal: new AbortController().signal, isLastTry: true });
  }

  /** Works on a thing until nothing is left to do, or a problem was told. */
  private async work(id: number, { signal, isLastTry }: JobTry): Promise<void> {
    // Stopped a moment ago and resumed: the job comes again when this server has let go of it.
    if (this.underWay.has(id)) throw new Error(`${this.thing.job} ${id} is still being let go of`);
    const stop = new AbortController();
    let end = (): void => undefined;
    const ended = new Promise<void>((resolve) => (end = resolve));
    this.underWay.set(id, { stop, ended });
    const { leases } = this.thing;
    const stillHere = setInterval(() => void this.renew(id), renewMilliseconds);
    try {
      if (await leases.claim(this.database.queries, id, this.worker))
        await this.thing.work(id, this.worker, AbortSignal.any([signal, stop.signal]));
    } catch (error) {
      if (error instanceof WorkLost || stop.signal.aborted) return;
      if (signal.aborted) throw error;
      await this.thing.tellProblem(id, error, isLastTry);
    } finally {
      clearInterval(stillHere);
      await leases.release(this.database.queries, id, this.worker);
      this.underWay.delete(id);
      end();
    }
  }

  private async renew(id: number): Promise<void> {
    await this.thing.leases
      .renew(this.database.queries, id, this.worker)
      .catch((error: unknown) => this.logger.warn(`${id} could not be held: ${String(error)}`));
  }
}
