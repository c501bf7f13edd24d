import { setMaxListeners } from 'node:events';
import { setTimeout } from 'node:timers/promises';
import { Inject, Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import PgBoss from 'pg-boss';
import type { OpenDatabase } from '../database/open-database.js';
import { DATABASE } from '../database/transactions.js';
import { QueueWorker, type WorkOnJob } from './queue-worker.js';

/** Tries after the first one, and seconds before the first of them; each pause is about twice the one before. */
const [retries, firstPauseSeconds] = [8, 1];
const longestJobSeconds = 4 * 60 * 60;
const minute = 60;
const watchMilliseconds = 2_000;

/**
 * Jobs that outlive a restart and are shared by all servers on one database. What a job has done must stand in the
 * database by itself: a job may be begun again at any time, and by another server.
 */
@Injectable()
export class WorkQueue implements OnApplicationShutdown {
  private readonly logger = new Logger(WorkQueue.name);
  private readonly stop = new AbortController();
  private readonly workers = new Map<string, QueueWorker>();
  private readonly clocks: NodeJS.Timeout[] = [];
  private started: Promise<PgBoss> | undefined;
  private watching: Promise<void> | undefined;

  constructor(@Inject(DATABASE) private readonly database: OpenDatabase) {
    // As many listen to it as there are workers.
    setMaxListeners(0, this.stop.signal);
  }

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
    const jobs = {
      next: async () => (await boss.fetch<object>(name, { includeMetadata: true }))[0],
      complete: (id: string) => boss.complete(name, id),
      fail: (id: string, { message }: Error) => boss.fail(name, id, { message }),
    };
    this.workers.set(name, new QueueWorker(jobs, work, this.stop.signal, this.tell));
    this.watching ??= this.watch();
  }

  /** Asks for a job, to be begun at once by a server that is free, or so many seconds from now. */
  async ask(name: string, data: object, inSeconds = 0): Promise<void> {
    const boss = await this.boss();
    await boss.send(name, data, { startAfter: inSeconds });
    this.workers.get(name)?.wake();
  }

  /** Asks for a job each minute; however many servers ask, it is one job a minute. */
  async askEveryMinute(name: string): Promise<void> {
    const boss = await this.boss();
    const ask = () => void boss.send(name, {}, { singletonSeconds: minute }).catch(this.tell);
    this.clocks.push(setInterval(ask, minute * 1000).unref());
  }

  async onApplicationShutdown(): Promise<void> {
    if (!this.started) return;
    for (const clock of this.clocks) clearInterval(clock);
    this.stop.abort('shutdown');
    await Promise.all([this.watching, ...[...this.workers.values()].map((worker) => worker.end())]);
    await (await this.started).stop({ graceful: true, wait: true, timeout: 5_000 });
  }

  /**
   * Wakes whoever has a job: one that another server asked for, that waited for its moment, or that comes again. One look for
   * all names: to ask for a job costs the embedded database as much as ten small questions.
   */
  private async watch(): Promise<void> {
    const { signal } = this.stop;
    while (!signal.aborted) {
      await setTimeout(watchMilliseconds, undefined, { signal, ref: false }).catch(() => undefined);
      if (signal.aborted) return;
      for (const name of (await this.due().catch(this.tell)) ?? []) this.workers.get(name)?.wake();
    }
  }

  /** Of the names that this server works on, those of which a job could be begun. */
  private async due(): Promise<string[]> {
    const { rows } = await this.database.pool.query<{ name: string }>(
      `SELECT DISTINCT name FROM work.job WHERE name = ANY($1) AND state < 'active' AND start_after < now()`,
      [[...this.workers.keys()]],
    );
    return rows.map(({ name }) => name);
  }

  private boss(): Promise<PgBoss> {
    return (this.started ??= this.start());
  }

  private async start(): Promise<PgBoss> {
    const boss = new PgBoss({
      db: { executeSql: (text, values) => this.execute(text, values) },
      schema: 'work',
      schedule: false,
    });
    boss.on('error', this.tell);
    return boss.start();
  }

  private readonly tell = (error: unknown): void => {
    if (!this.stop.signal.aborted) this.logger.error('the work queue failed', error);
  };

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
