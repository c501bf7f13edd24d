import { Inject, Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { isFileUnderWay, readingOf, type FileStatus } from '#core/files';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import {
  Bulk,
  Clock,
  collectingSooner,
  DATABASE,
  HeldWork,
  Leases,
  problemToKeep,
  readRows,
  Refusal,
  Transactions,
  WorkQueue,
  type OpenDatabase,
  type Queries,
} from '#server/platform';
import { FileImportsRepository, type KeptFile } from './file-imports.repository.js';
import { FilePlannerService } from './file-planner.service.js';
import { FileValuesRepository, type RowRange } from './file-values.repository.js';

/** Rows of one file. */
export const mostFileRows = 3_000_000;

/** Rows that are written in one transaction: few enough for others to be answered in between. */
const rowsAtOnce = 5_000;

/** What a file falls back to when its work comes to nothing; nothing was written then. */
const before: Partial<Record<FileStatus, FileStatus>> = {
  reading: 'refused',
  planning: 'read',
  accepting: 'planned',
  undoing: 'accepted',
};

/**
 * Works on files: reads all rows once, plans what each would do, writes it or takes it back. A reading or plan that was
 * broken off is begun anew; writing and taking back go on where they were.
 */
@Injectable()
export class FileWorker implements OnApplicationBootstrap {
  private readonly logger = new Logger(FileWorker.name);
  readonly held: HeldWork;

  constructor(
    @Inject(DATABASE) database: OpenDatabase,
    queue: WorkQueue,
    private readonly transactions: Transactions,
    private readonly bulk: Bulk,
    private readonly files: FileImportsRepository,
    private readonly values: FileValuesRepository,
    private readonly planner: FilePlannerService,
    private readonly periods: PeriodsRepository,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {
    this.held = new HeldWork(database, queue, {
      job: 'file',
      leases: new Leases('file_imports', sql`status IN ('reading', 'planning', 'accepting', 'undoing')`),
      work: (id, worker, signal) => collectingSooner(() => this.work(id, worker, signal)),
      tellProblem: (id, error) => this.tellProblem(id, error),
    });
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.held.take();
  }

  private async work(id: number, worker: string, signal: AbortSignal): Promise<void> {
    for (;;) {
      const file = await this.files.byIdOrThrow(this.transactions.reading, id);
      if (!isFileUnderWay(file.status)) return;
      if (file.status === 'reading') await this.read(file, worker, signal);
      else if (file.status === 'planning') await this.planner.plan(file, worker, signal);
      else if (file.status === 'accepting') await this.accept(file, worker, signal);
      else await this.undo(file, worker, signal);
    }
  }

  /** Counts the rows, and finds what cannot be read anywhere in them. */
  private async read(file: KeptFile, worker: string, signal: AbortSignal): Promise<void> {
    const queries = this.transactions.reading;
    let rowCount = 0;
    let bytesDone = 0;
    const counted = async function* (bytes: AsyncIterable<Buffer>) {
      for await (const piece of bytes) {
        yield piece;
        bytesDone += piece.length;
      }
    };
    for await (const { before: first, rows } of readRows(counted(this.files.bytes(queries, file.id)), file.form)) {
      signal.throwIfAborted();
      rowCount = first + rows.length;
      if (rowCount > mostFileRows) {
        const reason = `at most ${mostFileRows.toLocaleString('en')} rows can be read at once`;
        throw new Refusal('file-unreadable', { row: mostFileRows + 1, reason });
      }
      await this.pass(file, worker, { stepsDone: bytesDone, stepCount: file.byteSize });
    }
    const status = readingOf(file) ? 'planning' : 'read';
    await this.pass(file, worker, { status, rowCount, stepsDone: 0, stepCount: 0 });
  }

  /**
   * Writes all that the plan says, a stretch of rows at a time, and then lets all of it be seen at once; or nothing, where
   * anything is no longer as it was planned.
   */
  private async accept(file: KeptFile, worker: string, signal: AbortSignal): Promise<void> {
    const period = await this.periods.byIdOrThrow(this.transactions.reading, file.periodId);
    const isStill = await this.overRows(file, worker, signal, async (queries, rows) => {
      if (rows.after === 0) await this.values.forgetWritten(queries, file.id);
      if (await this.values.haveMovedOn(queries, file, period, rows)) return false;
      await this.values.write(queries, file, rows);
      return true;
    });
    if (isStill && (await this.transactions.run((queries) => this.showWritten(queries, file, period, worker)))) return;
    const problem = problemToKeep(new Refusal('preview-changed'));
    await this.pass(file, worker, { status: 'planning', planNumber: file.planNumber + 1, problem });
  }

  private async showWritten(queries: Queries, file: KeptFile, period: SchoolPeriod, worker: string): Promise<boolean> {
    await this.periods.holdUnsealedOrThrow(queries, period);
    const all = { after: 0, upTo: file.rowCount! };
    if (
      (await this.values.othersDecidedSince(queries, file, file.askedAt!)) &&
      (await this.values.haveMovedOn(queries, file, period, all))
    )
      return false;
    const acceptedAt = this.clock.now();
    await this.finish(queries, file, worker, 'accept file', {
      status: 'accepted',
      acceptedAt,
      acceptedBy: file.askedBy,
    });
    return true;
  }

  /** Nothing of it has been seen since it was asked for; what it wrote goes a stretch at a time. */
  private async undo(file: KeptFile, worker: string, signal: AbortSignal): Promise<void> {
    await this.overRows(file, worker, signal, async (queries, rows) => {
      await this.values.takeBack(queries, file, rows);
      return true;
    });
    await this.transactions.run((queries) =>
      this.finish(queries, file, worker, 'undo file', { status: 'undone', undoneAt: this.clock.now() }),
    );
  }

  /** Goes on after the last stretch that was kept. False as soon as the work on a stretch says so, which is not kept. */
  private async overRows(
    file: KeptFile,
    worker: string,
    signal: AbortSignal,
    work: (queries: Queries, rows: RowRange) => Promise<boolean>,
  ): Promise<boolean> {
    const rowCount = file.rowCount!;
    for (let after = file.stepsDone; after < rowCount; after += rowsAtOnce) {
      signal.throwIfAborted();
      const upTo = Math.min(rowCount, after + rowsAtOnce);
      const goesOn = await this.bulk.run(async (queries) => {
        await this.files.passOrThrow(queries, file, worker, { stepsDone: upTo, stepCount: rowCount });
        return work(queries, { after, upTo });
      });
      if (!goesOn) return false;
    }
    return true;
  }

  private async finish(
    queries: Queries,
    file: KeptFile,
    worker: string,
    action: string,
    values: Partial<KeptFile> & { readonly status: FileStatus },
  ): Promise<void> {
    await this.log.recordOf(queries, file.askedBy ?? file.readBy, [
      {
        action,
        thing: `file ${file.id}`,
        before: { status: before[file.status] },
        after: { status: values.status, counts: file.plan?.counts },
      },
    ]);
    await this.files.passOrThrow(queries, file, worker, { ...values, stepsDone: 0, stepCount: 0 });
  }

  private pass(file: KeptFile, worker: string, values: Partial<KeptFile>): Promise<void> {
    return this.files.passOrThrow(this.transactions.reading, file, worker, values);
  }

  private async tellProblem(id: number, error: unknown): Promise<void> {
    const queries = this.transactions.reading;
    const { status } = await this.files.byIdOrThrow(queries, id);
    if (!(error instanceof Refusal)) this.logger.error(`file ${id} failed`, error);
    const problem = problemToKeep(error);
    await this.files.change(queries, id, { status: before[status] ?? status, problem, stepsDone: 0, stepCount: 0 });
  }
}
