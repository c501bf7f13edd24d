import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { canChooseColumns, canDiscardFile, countOutcomes, foldKey, isWritten, readingOf } from '#core/files';
import { problemOf } from '#contract/problems';
import {
  fileStates,
  largestWorkbookMegabytes,
  type ChooseColumnsRequest,
  type FileImportReply,
  type FileImportSummaryReply,
  type FileRowReply,
  type FileRowsQuery,
  type FileRowsReply,
  type ReadAgainRequest,
} from '#contract/files';
import { ArrivalsService } from '#server/audit';
import { PeriodsRepository } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import {
  Clock,
  keptRefusal,
  openTableOrThrow,
  openWorkbookOrThrow,
  Refusal,
  Transactions,
  type Actor,
  type OpenTable,
  type Queries,
} from '#server/platform';
import { FileDirectoryService } from './file-directory.service.js';
import { FileImportsRepository, type KeptFile, type LedgerRow } from './file-imports.repository.js';
import { FileMeaningService } from './file-meaning.service.js';
import { FileWorker } from './file-worker.js';
import { asksForSheet, choiceOfFile, faultsOf, firstRowsOf, linesOf, nothingChosen, planOf } from './kept-file.js';

/** Work on a file of so many bytes is done before the answer; on a larger one the answer tells how far it is. */
const workedOnAtOnce = 1024 * 1024;

/** What people do with files; the worker does the work. */
@Injectable()
export class FileImportsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly files: FileImportsRepository,
    private readonly directories: FileDirectoryService,
    private readonly meanings: FileMeaningService,
    private readonly periods: PeriodsRepository,
    private readonly worker: FileWorker,
    private readonly arrivals: ArrivalsService,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  ofPeriod(periodId: number): Promise<FileImportSummaryReply[]> {
    return this.files.ofPeriod(this.transactions.reading, periodId);
  }

  /** Keeps a file, with what is proposed for it already chosen. Writes no grade. */
  async read(actor: Actor, periodId: number, name: string, path: string): Promise<FileImportReply> {
    const table = await openTableOrThrow(path, name, largestWorkbookMegabytes);
    const reading = this.transactions.reading;
    const period = await this.periods.byIdOrThrow(reading, periodId);
    const meant = await this.meanings.of(period, table.firstRows, null);
    const asksSheet = asksForSheet({ ...table, isSheetChosen: false });
    const id = await this.transactions.run(async (queries) => {
      const { grades, ...choice } = asksSheet ? nothingChosen : meant.choice;
      const { byteSize, sha256, encoding, form, sheets, sheet } = table;
      const id = await this.files.add(
        queries,
        {
          fileName: name,
          byteSize,
          sha256,
          encoding,
          form,
          sheets,
          sheet,
          ...meant.head,
          ...choice,
          schoolId: period.schoolId,
          periodId,
          status: 'reading',
          namedSections: meant.namedSections,
          readBy: actor.personId,
          readAt: this.clock.now(),
        },
        grades,
      );
      await this.files.addBytes(queries, id, table.bytes());
      if (table.sheets.length > 1) await this.files.keepWorkbook(queries, id, await readFile(path));
      await this.log.record(queries, actor, [
        { action: 'read file', thing: `file ${id}`, before: null, after: { name, bytes: byteSize } },
      ]);
      return id;
    });
    await this.work(id, table.byteSize);
    const file = await this.files.byIdOrThrow(reading, id);
    if (file.status !== 'refused') return this.reply(file);
    await this.files.remove(reading, id);
    throw keptRefusal(file.problem)!;
  }

  /** Reads the file again, from another sheet or with its columns named in another row; what was chosen is chosen anew. */
  async readAgain(actor: Actor, id: number, { sheet, headerRow }: ReadAgainRequest): Promise<FileImportReply> {
    const reading = this.transactions.reading;
    const file = await this.files.byIdOrThrow(reading, id);
    const period = await this.periods.byIdOrThrow(reading, file.periodId);
    const other = sheet === null || sheet === file.sheet ? null : await this.otherSheetOrThrow(file, sheet);
    const firstRows = other?.firstRows ?? (await firstRowsOf(this.files.bytes(reading, id), file.form));
    if (headerRow !== null && headerRow > firstRows.length)
      throw new Refusal('fields-wrong', {}, [{ field: 'headerRow', detail: `the file has ${firstRows.length} rows` }]);
    const meant = await this.meanings.of(period, firstRows, headerRow);
    const isSheetChosen = file.isSheetChosen || sheet !== null;
    const { grades, ...choice } = asksForSheet({ ...file, isSheetChosen }) ? nothingChosen : meant.choice;
    await this.transactions.run(async (queries) => {
      const now = await this.files.lockedOrThrow(queries, id);
      if (!canChooseColumns(now.status)) throw new Refusal('import-done', { state: fileStates[now.status] });
      await this.files.setGrades(queries, id, grades);
      if (other) await this.files.replaceBytes(queries, id, other.bytes());
      const isPlanned = readingOf({ grades, ...choice }) !== null;
      await this.files.change(queries, id, {
        ...meant.head,
        ...choice,
        ...(other && { sheet: other.sheet, rowCount: null }),
        isSheetChosen,
        planNumber: now.planNumber + 1,
        plan: null,
        problem: null,
        status: other ? 'reading' : isPlanned ? 'planning' : 'read',
      });
      const before = { sheet: now.sheet, headerRow: now.headerRow };
      const after = { sheet: other?.sheet ?? now.sheet, headerRow: meant.head.headerRow };
      await this.log.record(queries, actor, [{ action: 'read file again', thing: `file ${id}`, before, after }]);
    });
    await this.work(id, file.byteSize);
    return this.byId(id);
  }

  private async otherSheetOrThrow({ id, fileName, sheets }: KeptFile, sheet: string): Promise<OpenTable> {
    const workbook = await this.files.workbook(this.transactions.reading, id);
    if (!workbook || !sheets.some(({ name }) => name === sheet))
      throw new Refusal('fields-wrong', {}, [{ field: 'sheet', detail: 'a sheet of the workbook' }]);
    return openWorkbookOrThrow(workbook, fileName, sheet);
  }

  async byId(id: number): Promise<FileImportReply> {
    return this.reply(await this.files.byIdOrThrow(this.transactions.reading, id));
  }

  async rows(id: number, query: FileRowsQuery): Promise<FileRowsReply> {
    return this.transactions.snapshot(async (queries) => {
      const file = await this.files.byIdOrThrow(queries, id);
      const plan = planOf(file);
      const lines = await this.files.rows(queries, id, query);
      const remarks = file.status === 'planned' ? await this.remarksOn(queries, file.periodId, lines) : undefined;
      const rows = lines.map(({ enrollmentId, ...line }): FileRowReply => ({
        ...line,
        remarks: remarks?.get(`${enrollmentId}/${line.itemId}`) ?? [],
      }));
      return { rows, total: plan ? linesOf(plan, query.show) : 0 };
    });
  }

  /** What would be said of the grades that these lines are about to change. */
  private async remarksOn(queries: Queries, periodId: number, lines: readonly LedgerRow[]) {
    const arrivals = lines.flatMap(({ enrollmentId, itemId, outcome, after }) =>
      isWritten(outcome) && enrollmentId !== null && after !== null ? [{ enrollmentId, itemId, computed: after }] : [],
    );
    if (arrivals.length === 0) return undefined;
    return this.arrivals.remarks(queries, await this.periods.byIdOrThrow(queries, periodId), arrivals);
  }

  async choose(actor: Actor, id: number, request: ChooseColumnsRequest): Promise<FileImportReply> {
    const { namedSections, grades, ...choice } = request;
    const byteSize = await this.transactions.run(async (queries) => {
      const file = await this.files.lockedOrThrow(queries, id);
      if (!canChooseColumns(file.status)) throw new Refusal('import-done', { state: fileStates[file.status] });
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
      if (file.status !== 'planned') throw new Refusal('import-done', { state: fileStates[file.status] });
      if (file.planNumber !== planNumber) throw new Refusal('preview-changed');
      if (countOutcomes(planOf(file)!, isWritten) === 0) throw new Refusal('nothing-to-write');
    });
  }

  /** From this moment on nothing of the file is seen any more. */
  async undo(actor: Actor, id: number): Promise<FileImportReply> {
    return this.ask(actor, id, 'undoing', ({ status }) => {
      if (status !== 'accepted') throw new Refusal('import-done', { state: fileStates[status] });
    });
  }

  /** Lets go of a file that is not accepted, also while work on it is under way. */
  async discard(actor: Actor, id: number): Promise<void> {
    await this.transactions.run(async (queries) => {
      const file = await this.files.lockedOrThrow(queries, id);
      if (!canDiscardFile(file.status)) throw new Refusal('import-done', { state: fileStates[file.status] });
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
    const refusal = keptRefusal(file.problem);
    if (refusal) throw refusal;
    return this.reply(file);
  }

  private async work(id: number, byteSize: number): Promise<void> {
    await (byteSize <= workedOnAtOnce ? this.worker.held.workNow(id) : this.worker.held.begin(id));
  }

  private async reply(file: KeptFile): Promise<FileImportReply> {
    const queries: Queries = this.transactions.reading;
    const items = await this.directories.items(queries, await this.periods.byIdOrThrow(queries, file.periodId));
    const refusal = keptRefusal(file.problem);
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
      headerRow: file.headerRow,
      leadingRows: file.leadingRows,
      sheets: file.sheets,
      sheet: file.sheet,
      asksSheet: asksForSheet(file),
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
