import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { ConnectPlatformRequest, PlatformReply } from '#contract/platforms';
import { ChangeLog } from '#server/changes';
import { Clock, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { PlatformClient } from './platform-client.js';
import { PlatformProblem } from './platform-problem.js';
import { PlatformsRepository, type KeptPlatform } from './platforms.repository.js';
import { readPlatform } from './read-platform.js';

interface Reading {
  /** When it stands in the database that it is being read. */
  readonly started: Promise<void>;
  readonly work: Promise<void>;
  readonly stop: AbortController;
}

/**
 * The learning platforms of the schools. Reading one is long work: that it is under way stands in the database, so that a
 * restarted server begins it again; nothing is kept before all of it was read.
 */
@Injectable()
export class PlatformsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger(PlatformsService.name);
  private readonly underWay = new Map<number, Reading>();
  private readonly listeners: ((queries: Queries, platformId: number) => Promise<void>)[] = [];

  constructor(
    private readonly transactions: Transactions,
    private readonly platforms: PlatformsRepository,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    for (const platform of await this.platforms.withState(this.transactions.reading, 'reading')) this.begin(platform);
  }

  async onApplicationShutdown(): Promise<void> {
    const running = [...this.underWay.values()];
    for (const { stop } of running) stop.abort('shutdown');
    await Promise.all(running.map(({ work }) => work));
  }

  /** What is to be done with what was read, in the transaction that keeps it. */
  onRead(listener: (queries: Queries, platformId: number) => Promise<void>): void {
    this.listeners.push(listener);
  }

  async ofSchool(schoolId: number): Promise<PlatformReply[]> {
    return (await this.platforms.ofSchool(this.transactions.reading, schoolId)).map(replyOf);
  }

  async byId(id: number): Promise<PlatformReply> {
    return this.transactions.snapshot((queries) => this.oneOrThrow(queries, id));
  }

  /** @throws Refusal not-found */
  async oneOrThrow(queries: Queries, id: number): Promise<PlatformReply> {
    const { schoolId } = await this.platforms.byIdOrThrow(queries, id);
    return (await this.platforms.ofSchool(queries, schoolId)).map(replyOf).find((platform) => platform.id === id)!;
  }

  /** Keeps the platform and begins to read it. */
  async connect(actor: Actor, request: ConnectPlatformRequest): Promise<PlatformReply> {
    const id = await this.transactions.run(async (queries) => {
      const id = await this.platforms.add(queries, { ...request });
      if (id === undefined) throw new Refusal('platform-exists', { name: request.name });
      await this.record(queries, actor, 'connect platform', id, request);
      return id;
    });
    return this.read(id);
  }

  async remove(actor: Actor, id: number): Promise<void> {
    await this.cancel(id);
    await this.transactions.run(async (queries) => {
      const { name, address } = await this.platforms.byIdOrThrow(queries, id);
      await this.platforms.remove(queries, id);
      await this.record(queries, actor, 'disconnect platform', id, { name, address });
    });
  }

  /** Begins to read the platform again; one that is being read goes on. */
  async read(id: number): Promise<PlatformReply> {
    const platform = await this.platforms.byIdOrThrow(this.transactions.reading, id);
    if (!this.underWay.has(id)) this.begin(platform);
    await this.underWay.get(id)?.started;
    return this.byId(id);
  }

  /** Stops reading; what was known before stays. */
  async cancel(id: number): Promise<PlatformReply> {
    const running = this.underWay.get(id);
    running?.stop.abort('cancel');
    await running?.work;
    return this.byId(id);
  }

  /** Waits for the reading under way, if there is one. */
  async finished(id: number): Promise<void> {
    await this.underWay.get(id)?.work;
  }

  /** Known to be under way from this very moment, so that two who ask at once begin it once. */
  private begin(platform: KeptPlatform): void {
    const stop = new AbortController();
    const started = this.platforms.change(this.transactions.reading, platform.id, {
      state: 'reading',
      done: 0,
      total: 0,
      problem: null,
    });
    const work = started
      .then(() => this.work(platform, stop.signal))
      .catch(async (error: unknown) => {
        if (stop.signal.reason === 'shutdown') return;
        await this.fail(platform, stop.signal.aborted ? new PlatformProblem('You stopped the reading.') : error);
      })
      .finally(() => this.underWay.delete(platform.id));
    this.underWay.set(platform.id, { started, work, stop });
  }

  private async work(platform: KeptPlatform, signal: AbortSignal): Promise<void> {
    const { id } = platform;
    const snapshot = await readPlatform(new PlatformClient(platform, signal), (done, total) =>
      this.platforms.change(this.transactions.reading, id, { done, total }),
    );
    signal.throwIfAborted();
    await this.transactions.run(async (queries) => {
      await this.platforms.store(queries, id, snapshot);
      for (const listener of this.listeners) await listener(queries, id);
      await this.platforms.change(queries, id, { state: 'read', readAt: this.clock.now(), problem: null });
    });
  }

  private async fail({ id, name }: KeptPlatform, error: unknown): Promise<void> {
    const isExpected = error instanceof PlatformProblem;
    if (!isExpected) this.logger.error(`reading platform ${id} failed`, error);
    const problem = isExpected
      ? error.message
      : `${name} could not be read because of a fault in Wombat; the server's log has it.`;
    await this.platforms.change(this.transactions.reading, id, { state: 'failed', problem });
  }

  private async record(
    queries: Queries,
    actor: Actor,
    action: string,
    id: number,
    { name, address }: { name: string; address: string },
  ) {
    await this.log.record(queries, actor, [
      { action, thing: `platform ${id}`, before: null, after: { name, address } },
    ]);
  }
}

function replyOf({
  platform: { id, name, address, clientId, state, done, total, problem, readAt },
  ...counts
}: Awaited<ReturnType<PlatformsRepository['ofSchool']>>[number]): PlatformReply {
  return { id, name, address, clientId, state, done, total, problem, readAt: readAt?.toISOString() ?? null, ...counts };
}
