import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { proposeGradeColumn, proposeIdColumn, foldKey } from '#core/transfer';
import type { ChooseColumnsRequest, FileImportReply, FileImportSummaryReply } from '#contract/transfer';
import { PeriodsRepository } from '#server/calendar';
import { ChangeLog } from '#server/log';
import {
  Clock,
  readTableOrThrow,
  Refusal,
  Transactions,
  type Actor,
  type FieldFault,
  type Queries,
} from '#server/platform';
import { ReportingService } from '#server/report-items';
import { DirectoryRepository } from './directory.repository.js';
import { FileImportsRepository, type FileImport } from './file-imports.repository.js';
import { FilePreviewService, previewOfPlan } from './file-preview.service.js';

const sampleSize = 5;
/** In percent: a choice that somebody accepted says more than any likeness. */
const confidenceInEarlier = 99;

@Injectable()
export class FileImportsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly files: FileImportsRepository,
    private readonly previews: FilePreviewService,
    private readonly directories: DirectoryRepository,
    private readonly reporting: ReportingService,
    private readonly periods: PeriodsRepository,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  async ofPeriod(periodId: number): Promise<FileImportSummaryReply[]> {
    const rows = await this.files.ofPeriod(this.transactions.reading, periodId);
    return rows.map(({ readAt, ...row }) => ({ ...row, readAt: readAt.toISOString() }));
  }

  /** Reads a file and keeps its table, with what is proposed for it already chosen. Writes no grade. */
  async read(actor: Actor, periodId: number, name: string, bytes: Buffer): Promise<FileImportReply> {
    const { table, encoding } = await readTableOrThrow(bytes, name);
    const id = await this.transactions.run(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const [reporting] = await this.reporting.inPeriod(queries, period);
      if (!reporting) throw new Refusal('not-found', { what: `report item in ${period.name}`, id: periodId });
      const proposals = await this.propose(
        queries,
        table.rows[table.headerRow - 1]!,
        table.rows.slice(table.headerRow),
        reporting.sections.map((section) => section.id),
        { schoolId: period.schoolId, id: null },
      );
      const id = await this.files.add(
        queries,
        {
          schoolId: period.schoolId,
          periodId,
          itemId: reporting.item.id,
          fileName: name,
          byteSize: bytes.length,
          sha256: createHash('sha256').update(bytes).digest('hex'),
          status: 'read',
          headerRow: table.headerRow,
          idColumn: proposals.id?.column ?? null,
          gradeColumn: proposals.grade?.column ?? null,
          sectionId: proposals.section?.sectionId ?? null,
          readBy: actor.personId,
          readAt: this.clock.now(),
        },
        table.rows,
      );
      await this.log.record(queries, actor, [
        {
          action: 'read file',
          thing: `file ${id}`,
          before: null,
          after: { name, bytes: bytes.length, rows: table.rows.length },
        },
      ]);
      return id;
    });
    return { ...(await this.byId(id)), encoding };
  }

  async byId(id: number): Promise<FileImportReply> {
    const queries = this.transactions.reading;
    const file = await this.files.byIdOrThrow(queries, id);
    const rows = await this.files.rowsOf(queries, id);
    const header = rows[file.headerRow - 1]!.cells.map((cell) => cell.trim());
    const dataRows = rows.slice(file.headerRow).map(({ cells }) => cells);
    const period = await this.periods.byIdOrThrow(queries, file.periodId);
    const { sections } = await this.reporting.ofItemOrThrow(queries, period, file.itemId);
    const plan = await this.previews.plan(queries, file);
    const names = await this.files.namesOf(queries, file);
    return {
      ...names,
      id,
      fileName: file.fileName,
      byteSize: file.byteSize,
      encoding: null,
      status: file.status,
      readAt: file.readAt.toISOString(),
      acceptedAt: file.acceptedAt?.toISOString() ?? null,
      header,
      sampleRows: dataRows.slice(0, sampleSize),
      idColumn: file.idColumn,
      gradeColumn: file.gradeColumn,
      sectionId: file.sectionId,
      proposals: await this.propose(
        queries,
        rows[file.headerRow - 1]!.cells,
        dataRows,
        sections.map((section) => section.id),
        file,
      ),
      preview: plan && previewOfPlan(plan),
    };
  }

  async choose(actor: Actor, id: number, choice: ChooseColumnsRequest): Promise<FileImportReply> {
    await this.transactions.run(async (queries) => {
      const file = await this.openFile(queries, id);
      const columns = (await this.files.rowsOf(queries, id))[file.headerRow - 1]!.cells.length;
      const faults = (['idColumn', 'gradeColumn'] as const).flatMap((field): FieldFault[] =>
        (choice[field] ?? 0) < columns ? [] : [{ field, detail: `a column from 0 to ${columns - 1}` }],
      );
      if (choice.idColumn !== null && choice.idColumn === choice.gradeColumn) {
        faults.push({ field: 'gradeColumn', detail: 'another column than the one with the ids' });
      }
      if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
      const { idColumn, gradeColumn, sectionId } = choice;
      await this.files.change(queries, id, { idColumn, gradeColumn, sectionId });
      const before = { idColumn: file.idColumn, gradeColumn: file.gradeColumn, sectionId: file.sectionId };
      await this.log.record(queries, actor, [
        { action: 'choose columns', thing: `file ${id}`, before, after: { idColumn, gradeColumn, sectionId } },
      ]);
    });
    return this.byId(id);
  }

  /** Writes all that the preview says is new or changed, or nothing. */
  async accept(actor: Actor, id: number, previewId: string): Promise<FileImportReply> {
    await this.transactions.run(async (queries) => {
      const file = await this.openFile(queries, id);
      const plan = await this.previews.plan(queries, file);
      if (!plan) throw new Refusal('columns-missing');
      const preview = previewOfPlan(plan);
      if (preview.previewId !== previewId) throw new Refusal('preview-changed');
      if (preview.counts.new + preview.counts.changed === 0) throw new Refusal('nothing-to-write');
      await this.refuseSealed(queries, file);
      await this.files.keepOutcomes(queries, file, plan.rows);
      await this.files.writeComputed(queries, file);
      await this.files.change(queries, id, { status: 'accepted', acceptedAt: this.clock.now() });
      await this.log.record(queries, actor, [
        {
          action: 'accept file',
          thing: `file ${id}`,
          before: { status: 'read' },
          after: { status: 'accepted', counts: preview.counts },
        },
      ]);
    });
    return this.byId(id);
  }

  async undo(actor: Actor, id: number): Promise<FileImportReply> {
    await this.transactions.run(async (queries) => {
      const file = await this.files.lockedOrThrow(queries, id);
      if (file.status !== 'accepted') throw new Refusal('import-done', { status: file.status });
      await this.refuseSealed(queries, file);
      const later = await this.files.builtUpon(queries, file);
      if (later) throw new Refusal('import-built-upon', { file: later });
      await this.files.takeBackComputed(queries, file);
      await this.files.change(queries, id, { status: 'undone', undoneAt: this.clock.now() });
      await this.log.record(queries, actor, [
        { action: 'undo file', thing: `file ${id}`, before: { status: 'accepted' }, after: { status: 'undone' } },
      ]);
    });
    return this.byId(id);
  }

  /** Lets go of a file that was read and not accepted. */
  async discard(actor: Actor, id: number): Promise<void> {
    await this.transactions.run(async (queries) => {
      const file = await this.openFile(queries, id);
      await this.files.remove(queries, id);
      await this.log.record(queries, actor, [
        { action: 'discard file', thing: `file ${id}`, before: { name: file.fileName }, after: null },
      ]);
    });
  }

  private async openFile(queries: Queries, id: number): Promise<FileImport> {
    const file = await this.files.lockedOrThrow(queries, id);
    if (file.status !== 'read') throw new Refusal('import-done', { status: file.status });
    return file;
  }

  private async refuseSealed(queries: Queries, { periodId }: FileImport): Promise<void> {
    await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, periodId));
  }

  private async propose(
    queries: Queries,
    headerCells: readonly string[],
    rows: readonly (readonly string[])[],
    sectionIds: readonly number[],
    file: { readonly schoolId: number; readonly id: number | null },
  ): Promise<FileImportReply['proposals']> {
    const header = headerCells.map((cell) => cell.trim());
    const earlier = await this.files.earlierChoice(queries, file.schoolId, headerCells, file.id);
    const asBefore = (column: number) => ({
      column,
      confidence: confidenceInEarlier,
      reason: { code: 'earlier' as const, fileName: earlier!.fileName },
    });
    const known = await this.directories.sectionsByStudent(queries);
    const filled = rows.filter((row) => row.some((cell) => cell.trim() !== ''));
    const id = earlier
      ? asBefore(earlier.idColumn)
      : (proposeIdColumn(header, filled, (key) => known.has(key)) ?? null);
    const grade = earlier ? asBefore(earlier.gradeColumn) : (proposeGradeColumn(header, filled, id?.column) ?? null);
    if (!id) return { id, grade, section: null };
    const keys = filled.map((row) => foldKey(row[id.column] ?? ''));
    return { id, grade, section: likeliestSection(keys, known, sectionIds) };
  }
}

/** The section that most of the file's people are in. Undecided between two, none is proposed. */
function likeliestSection(
  keys: readonly string[],
  known: ReadonlyMap<string, ReadonlySet<number>>,
  sectionIds: readonly number[],
): FileImportReply['proposals']['section'] {
  const counts = sectionIds
    .map((sectionId) => ({ sectionId, known: keys.filter((key) => known.get(key)?.has(sectionId)).length }))
    .toSorted((a, b) => b.known - a.known);
  const [best, second] = counts;
  if (!best || best.known === 0 || best.known === second?.known) return null;
  return { ...best, confidence: Math.floor((100 * best.known) / keys.length) };
}
