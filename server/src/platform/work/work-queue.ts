import { Inject, Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import PgBoss from 'pg-boss';
import type { OpenDatabase } from '../database/open-database.js';
import { DATABASE } from '../database/transactions.js';

/** Work on a job; the signal says when to stop because the server stops. What is thrown is tried again later. */
export type WorkOnJob = (data: object, job: JobTry) => Promise<void>;

export interface JobTry {
  readonly signal: AbortSignal;
  readonly isLastTry: boolean;
}

/** Tries after the first one, and seconds before the first of them; each pause is about twice the one before. */
const [retries, firstPauseSeconds] = [8, 1];
const pollingSeconds = 2;
const longestJobSeconds = 4 * 60 * 60;

/**
 * Jobs that outlive a restart and are shared by all servers on one database. What a job has done must stand in the
 * database by itself: a job may be begun again at any time, and by another server.
 */
@Injectable()
export class WorkQueue implements OnApplicationShutdown {
  private readonly logger = new Logger(WorkQueue.name);
  private readonly stop = new AbortController();
  private readonly underWay = new Set<Promise<void>>();
  private readonly workers = new Map<string, string>();
  private started: Promise<PgBoss> | undefined;

  constructor(@Inject(DATABASE) private readonly database: OpenDatabase) {}

  /** From now on this server works on jobs of that name, one at a time. */
  async take(name: string, work: WorkOnJob): Promise<void> {
    const boss = await this.boss();
    await boss.createQueue(name, {
      name,
      retryLimit: retries,
      retryDelay: firstPauseSeconds,
      retryBackoff: true,
      expireInSeconds: longestJobSeconds,
    });
    const options = { pollingIntervalSeconds: pollingSeconds, includeMetadata: true } as const;
    const worker = await boss.work<object>(name, options, async ([job]) => {
      if (!job) return;
      const doing = work(job.data, { signal: this.stop.signal, isLastTry: job.retryCount >= job.retryLimit });
      this.underWay.add(doing);
      await doing.finally(() => this.underWay.delete(doing));
    });
    this.workers.set(name, worker);
  }

  /** Asks for a job, to be begun at once by a server that is free, or so many seconds from now. */
  async ask(name: string, data: object, inSeconds = 0): Promise<void> {
    const boss = await this.boss();
    await boss.send(name, data, { startAfter: inSeconds });
    const worker = this.workers.get(name);
    if (worker) boss.notifyWorker(worker);
  }

  /** Asks for a job again and again, at the minutes that a cron expression names; one server asks for all. */
  async askRegularly(name: string, cron: string): Promise<void> {
    await (await this.boss()).schedule(name, cron);
  }

  async onApplicationShutdown(): Promise<void> {
    if (!this.started) return;
    this.stop.abort('shutdown');
    await Promise.allSettled(this.underWay);
    await (await this.started).stop({ graceful: true, wait: true, timeout: 5_000 });
  }

  private boss(): Promise<PgBoss> {
    return (this.started ??= this.start());
  }

  private async start(): Promise<PgBoss> {
    const boss = new PgBoss({ db: { executeSql: (text, values) => this.execute(text, values) }, schema: 'work' });
    boss.on('error', (error) => {
      if (!this.stop.signal.aborted) this.logger.error('the work queue failed', error);
    });
    return boss.start();
  }

  /** The queue sends whole transactions as one text: where one fails, its connection must leave it. */
  private async execute(text: string, values: unknown[]): Promise<{ rows: unknown[] }> {
    const client = await this.database.pool.connect();
    try {
      return await client.query(text, values);
    } catch (error) {
      await client.query('ROLLBACK').catch(() => undefined);
      throw error;
    } finally {
      client.release();
    }
  }
}
