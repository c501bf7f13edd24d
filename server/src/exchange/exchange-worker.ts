import { Inject, Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { ExchangeFile } from '#core/exchange';
import { RecalculationService } from '#server/calculation';
import { ChangeLog } from '#server/changes';
import {
  Bulk,
  Clock,
  DATABASE,
  DistrictZone,
  HeldWork,
  Leases,
  problemToKeep,
  Refusal,
  Transactions,
  WorkQueue,
  type OpenDatabase,
  type Queries,
} from '#server/platform';
import { ExchangeIds } from './exchange-ids.js';
import { ExchangeImportsRepository, type KeptImport } from './exchange-imports.repository.js';
import { ExchangePlans, type PlannedZip } from './exchange-plans.js';
import { HeldRowsRepository } from './held-rows.repository.js';
import { RosterFieldsRepository } from './roster-fields.repository.js';
import { filesToWrite, isWrittenAnyway, writeRowsOf } from './write-rows.js';

/** Rows that are written in one transaction: few enough for others to be answered in between. */
const rowsAtOnce = 5_000;

/**
 * Writes zips, a stretch of rows at a time. One that was broken off is planned anew: what was written is then the same, and
 * the rest is written.
 */
@Injectable()
export class ExchangeWorker implements OnApplicationBootstrap {
  private readonly logger = new Logger(ExchangeWorker.name);
  readonly work: HeldWork;

  constructor(
    @Inject(DATABASE) database: OpenDatabase,
    queue: WorkQueue,
    private readonly transactions: Transactions,
    private readonly bulk: Bulk,
    private readonly imports: ExchangeImportsRepository,
    private readonly plans: ExchangePlans,
    private readonly held: HeldRowsRepository,
    private readonly rosterFields: RosterFieldsRepository,
    private readonly recalculation: RecalculationService,
    private readonly log: ChangeLog,
    private readonly zone: DistrictZone,
    private readonly clock: Clock,
  ) {
    this.work = new HeldWork(database, queue, {
      job: 'rosters',
      leases: new Leases('exchange_imports', sql`status = 'accepting'`),
      work: (id, worker, signal) => this.write(id, worker, signal),
      tellProblem: (id, error) => this.tellProblem(id, error),
    });
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.work.take();
  }

  private async write(id: number, worker: string, signal: AbortSignal): Promise<void> {
    const kept = await this.imports.byIdOrThrow(this.transactions.reading, id);
    if (kept.status !== 'accepting') return;
    const planned = await this.plans.plan(kept);
    try {
      if (kept.stepsDone === 0 && planned.summary.previewId !== kept.previewId) throw new Refusal('import-outdated');
      await this.writeRows(kept, planned, worker, signal);
      await this.keepRest(kept, planned, worker, signal);
    } finally {
      await planned.thread.close();
    }
    await this.transactions.run((queries) => this.finish(queries, kept, worker));
    await this.recalculation.start();
  }

  private async writeRows(kept: KeptImport, planned: PlannedZip, worker: string, signal: AbortSignal): Promise<void> {
    const shared = await planned.thread.ask('shared');
    const ids = await this.transactions.run((queries) => ExchangeIds.read(queries));
    const today = await this.zone.today(this.transactions.reading);
    let done = kept.stepsDone;
    for (const file of filesToWrite)
      for (let from = 0, isFirst = true; ; from += rowsAtOnce, isFirst = false) {
        signal.throwIfAborted();
        const rows = await planned.thread.ask('toWrite', file, from, rowsAtOnce);
        if (rows.length === 0 && !(isFirst && isWrittenAnyway(file))) break;
        done += rows.length;
        await this.bulk.run(async (queries) => {
          await this.imports.passOrThrow(queries, kept.id, worker, { stepsDone: done });
          await this.holdSealedOrThrow(queries, planned);
          await writeRowsOf(file, {
            ...shared,
            queries,
            ids: ids.within(queries),
            today,
            of: (of: ExchangeFile, ...outcomes) =>
              of === file ? rows.filter(({ outcome }) => outcomes.includes(outcome)).map(({ row }) => row) : [],
          });
        });
        if (rows.length < rowsAtOnce) break;
      }
  }

  /** What Wombat does not make by itself of what it holds now is kept beside it. */
  private async keepRest(
    kept: KeptImport,
    { thread, facts, lineItemIds }: PlannedZip,
    worker: string,
    signal: AbortSignal,
  ): Promise<void> {
    const { version } = facts.manifest;
    await thread.hand('takeMade', this.held.stretchesMade(this.transactions.reading, version, lineItemIds));
    for (let from = 0; ; from += rowsAtOnce) {
      signal.throwIfAborted();
      const rows = await thread.ask('toKeep', from, rowsAtOnce);
      if (rows.length === 0) return;
      await this.bulk.run(async (queries) => {
        await this.imports.passOrThrow(queries, kept.id, worker, {});
        await this.rosterFields.keep(queries, rows);
      });
    }
  }

  /** Nobody seals while a stretch is written, and none is written once a period that was not is sealed. */
  private async holdSealedOrThrow(queries: Queries, { sealed }: PlannedZip): Promise<void> {
    await queries.execute(sql`SELECT id FROM periods ORDER BY id FOR SHARE`);
    const now = await this.held.sealedSessions(queries);
    if (now.size !== sealed.size || [...now].some((id) => !sealed.has(id))) throw new Refusal('exchange-sealed');
  }

  private async finish(queries: Queries, kept: KeptImport, worker: string): Promise<void> {
    await this.log.recordOf(queries, kept.acceptedBy ?? kept.readBy, [
      {
        action: 'import rosters',
        thing: `rosters ${kept.id}`,
        before: { status: 'read' },
        after: { counts: kept.counts },
      },
    ]);
    const acceptedAt = this.clock.now();
    await this.imports.passOrThrow(queries, kept.id, worker, { status: 'accepted', acceptedAt, bytes: null });
  }

  private async tellProblem(id: number, error: unknown): Promise<void> {
    if (!(error instanceof Refusal)) this.logger.error(`rosters ${id} failed`, error);
    await this.imports.change(this.transactions.reading, id, { status: 'read', problem: problemToKeep(error) });
  }
}
