import { Injectable } from '@nestjs/common';
import { canChooseColumns, canDiscardFile, countOutcomes, foldKey, isWritten, readingOf } from '#core/files';
import { problemOf } from '#contract/problems';
import {
  largestWorkbookMegabytes,
  type ChooseColumnsRequest,
  type FileImportReply,
  type FileImportSummaryReply,
  type FileRowsQuery,
  type FileRowsReply,
} from '#contract/files';
import { PeriodsRepository } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { Clock, openTableOrThrow, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { FileDirectoryService } from './file-directory.service.js';
import { FileImportsRepository, type KeptFile } from './file-imports.repository.js';
import { choiceOf, proposeColumns } from './file-proposals.js';
import { FileWorker } from './file-worker.js';
import { choiceOfFile, faultsOf, linesOf, planOf, problemAsRefusal } from './kept-file.js';

const samplesKept = 5;
/** Work on a file of so many bytes is done before the answer; on a larger one the answer tells how far it is. */
const workedOnAtOnce = 1024 * 1024;

/** What people do with files; the worker does the work. */
@Injectable()
export class FileImportsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly files: FileImportsRepository,
    private readonly directories: FileDirectoryService,
    private readonly periods: PeriodsRepository,
    private readonly worker: FileWorker,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  ofPeriod(periodId: number): Promise<FileImportSummaryReply[]> {
    return this.files.ofPeriod(this.transactions.reading, periodId);
  }

  /** Keeps a file, with what is proposed for it already chosen. Writes no grade. */
  async read(actor: Actor, periodId: number, name: string, path: string): Promise<FileImportReply> {
    const table = await openTableOrThrow(path, name, largestWorkbookMegabytes);
    const header = table.firstRows[table.headerRow - 1]!.map((cell) => cell.trim());
    const samples = table.firstRows.slice(table.headerRow);
    const reading = this.transactions.reading;
    const period = await this.periods.byIdOrThrow(reading, periodId);
    const items = await this.directories.items(reading, period);
    if (items.length === 0) throw new Refusal('not-found', { what: `report item in ${period.name}`, id: periodId });
    const earlier = await this.files.earlierReading(reading, period.schoolId, header);
    const others = (await this.periods.ofSchool(reading, period.schoolId)).filter(({ id }) => id !== periodId);
    const periods = { own: period.name, others: others.map(({ name }) => name) };
    const proposals = await proposeColumns(reading, this.directories, header, samples, items, periods, earlier);
    const id = await this.transactions.run(async (queries) => {
      const { grades, ...choice } = choiceOf(proposals);
      const { byteSize, sha256, encoding, form, headerRow } = table;
      const file = { fileName: name, byteSize, sha256, encoding, form, headerRow, header, proposals, ...choice };
      const id = await this.files.add(
        queries,
        {
          ...file,
          schoolId: period.schoolId,
          periodId,
          status: 'reading',
          sampleRows: samples.slice(0, samplesKept),
          namedSections: earlier?.namedSections ?? {},
          readBy: actor.personId,
          readAt: this.clock.now(),
        },
        grades,
      );
      await this.files.addBytes(queries, id, table.bytes());
      await this.log.record(queries, actor, [
        { action: 'read file', thing: `file ${id}`, before: null, after: { name, bytes: byteSize } },
      ]);
      return id;
    });
    await this.work(id, table.byteSize);
    const file = await this.files.byIdOrThrow(reading, id);
    if (file.status !== 'refused') return this.reply(file);
    await this.files.remove(reading, id);
    throw problemAsRefusal(file)!;
  }

  async byId(id: number): Promise<FileImportReply> {
    return this.reply(await this.files.byIdOrThrow(this.transactions.reading, id));
  }

  async rows(id: number, query: FileRowsQuery): Promise<FileRowsReply> {
    const file = await this.files.byIdOrThrow(this.transactions.reading, id);
    const plan = planOf(file);
    return this.files.rows(this.transactions.reading, id, query, plan ? linesOf(plan, query.show) : 0);
  }

  async choose(actor: Actor, id: number, request: ChooseColumnsRequest): Promise<FileImportReply> {
    const { namedSections, grades, ...choice } = request;
    const byteSize = await this.transactions.run(async (queries) => {
      const file = await this.files.lockedOrThrow(queries, id);
      if (!canChooseColumns(file.status)) throw new Refusal('import-done', { status: file.status });
      const items = await this.directories.items(queries, await this.periods.byIdOrThrow(queries, file.periodId));
      const faults = faultsOf(request, file.header.length, items);
      if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
      await this.files.setGrades(queries, id, grades);
      const folded = Object.fromEntries(
        Object.entries(namedSections).map(([name, section]) => [foldKey(name), section]),
      );
      await this.files.change(queries, id, {
        ...choice,
        namedSections: folded,
        planNumber: file.planNumber + 1,
        plan: null,
        problem: null,
        status: readingOf(request) ? 'planning' : 'read',
      });
      const before = { ...choiceOfFile(file), namedSections: file.namedSections };
      await this.log.record(queries, actor, [
        { action: 'choose columns', thing: `file ${id}`, before, after: { ...choice, grades, namedSections: folded } },
      ]);
      return file.byteSize;
    });
    await this.work(id, byteSize);
    return this.byId(id);
  }

  /** Writes all that the plan says is new or changed, or nothing. */
  async accept(actor: Actor, id: number, planNumber: number): Promise<FileImportReply> {
    return this.ask(actor, id, 'accepting', (file) => {
      if (file.status === 'read') throw new Refusal('columns-missing');
      if (file.status !== 'planned') throw new Refusal('import-done', { status: file.status });
      if (file.planNumber !== planNumber) throw new Refusal('preview-changed');
      if (countOutcomes(planOf(file)!, isWritten) === 0) throw new Refusal('nothing-to-write');
    });
  }

  /** From this moment on nothing of the file is seen any more. */
  async undo(actor: Actor, id: number): Promise<FileImportReply> {
    return this.ask(actor, id, 'undoing', ({ status }) => {
      if (status !== 'accepted') throw new Refusal('import-done', { status });
    });
  }

  /** Lets go of a file that is not accepted, also while work on it is under way. */
  async discard(actor: Actor, id: number): Promise<void> {
    await this.transactions.run(async (queries) => {
      const file = await this.files.lockedOrThrow(queries, id);
      if (!canDiscardFile(file.status)) throw new Refusal('import-done', { status: file.status });
      await this.files.remove(queries, id);
      await this.log.record(queries, actor, [
        { action: 'discard file', thing: `file ${id}`, before: { name: file.fileName }, after: null },
      ]);
    });
    this.worker.held.interrupt(id);
  }

  private async ask(
    { personId }: Actor,
    id: number,
    status: 'accepting' | 'undoing',
    check: (file: KeptFile) => void,
  ): Promise<FileImportReply> {
    const byteSize = await this.transactions.run(async (queries) => {
      const file = await this.files.lockedOrThrow(queries, id);
      check(file);
      await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, file.periodId));
      const work = { stepsDone: 0, stepCount: file.rowCount ?? 0, problem: null };
      await this.files.change(queries, id, { ...work, status, askedBy: personId, askedAt: this.clock.now() });
      return file.byteSize;
    });
    await this.work(id, byteSize);
    const file = await this.files.byIdOrThrow(this.transactions.reading, id);
    const refusal = problemAsRefusal(file);
    if (refusal) throw refusal;
    return this.reply(file);
  }

  private async work(id: number, byteSize: number): Promise<void> {
    await (byteSize <= workedOnAtOnce ? this.worker.held.workNow(id) : this.worker.held.begin(id));
  }

  private async reply(file: KeptFile): Promise<FileImportReply> {
    const queries: Queries = this.transactions.reading;
    const items = await this.directories.items(queries, await this.periods.byIdOrThrow(queries, file.periodId));
    const refusal = problemAsRefusal(file);
    const problem = refusal && problemOf(refusal.code, refusal.data, []);
    const { id, fileName, byteSize, encoding, status, stepsDone, stepCount, header, sampleRows, proposals } = file;
    return {
      ...(await this.files.namesOf(queries, file)),
      ...choiceOfFile(file),
      id,
      fileName,
      byteSize,
      encoding,
      status,
      stepsDone,
      stepCount,
      header,
      sampleRows,
      proposals,
      namedSections: file.namedSections,
      readAt: file.readAt.toISOString(),
      acceptedAt: file.acceptedAt?.toISOString() ?? null,
      items: items.map(({ item }) => ({ id: item.id, name: item.name })),
      dataRows: file.rowCount === null ? null : file.rowCount - file.headerRow,
      plan: planOf(file),
      problem: problem ? { title: problem.title, detail: problem.detail } : null,
    };
  }
}
