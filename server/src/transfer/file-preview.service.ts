import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { formatDecimal } from '#core/numbers';
import {
  foldKey,
  planImport,
  rowOutcomes,
  type Directory,
  type FileRow,
  type PlannedRow,
  type RowOutcome,
} from '#core/transfer';
import type { PreviewReply } from '#contract/transfer';
import { PeriodsRepository } from '#server/calendar';
import type { Queries } from '#server/platform';
import { DirectoryRepository } from './directory.repository.js';
import { FileImportsRepository, type FileImport } from './file-imports.repository.js';

export interface FilePlan {
  readonly rows: readonly PlannedRow[];
  readonly directory: Directory;
}

/** Decides what accepting a file would do, always from what is so now. */
@Injectable()
export class FilePreviewService {
  constructor(
    private readonly files: FileImportsRepository,
    private readonly directories: DirectoryRepository,
    private readonly periods: PeriodsRepository,
  ) {}

  /** Null until both columns and the section are chosen. */
  async plan(queries: Queries, file: FileImport): Promise<FilePlan | null> {
    const { idColumn, gradeColumn, sectionId } = file;
    if (idColumn === null || gradeColumn === null || sectionId === null) return null;
    const period = await this.periods.byIdOrThrow(queries, file.periodId);
    const directory = await this.directories.ofSection(queries, file.itemId, period, sectionId);
    const rows = (await this.files.rowsOf(queries, file.id))
      .filter(({ row, cells }) => row > file.headerRow && cells.some((cell) => cell.trim() !== ''))
      .map(({ row, cells }): FileRow => ({ row, id: cells[idColumn] ?? '', value: cells[gradeColumn] ?? '' }));
    return { rows: planImport(rows, directory), directory };
  }
}

/** What the person looks at; its number changes with anything in it. */
export function previewOfPlan({ rows, directory }: FilePlan): PreviewReply {
  const inFile = new Set(rows.map(({ id }) => directory.roster.get(foldKey(id))?.enrollmentId));
  const expected = new Map([...directory.roster.values()].map((entry) => [entry.enrollmentId, entry]));
  const shown = rows.map(({ row, id, name, value, outcome, before, after, sameAs }) => ({
    row,
    id,
    name,
    value,
    outcome,
    sameAs,
    before: before && formatDecimal(before),
    after: after && formatDecimal(after),
  }));
  return {
    previewId: createHash('sha256').update(JSON.stringify(shown)).digest('hex'),
    counts: countOutcomes(rows),
    rows: shown,
    notInFile: [...expected.values()]
      .filter(({ enrollmentId, withdrawnOn }) => withdrawnOn === null && !inFile.has(enrollmentId))
      .map(({ name }) => name)
      .toSorted(),
  };
}

function countOutcomes(rows: readonly PlannedRow[]): Record<RowOutcome, number> {
  const counts = Object.fromEntries(rowOutcomes.map((outcome) => [outcome, 0])) as Record<RowOutcome, number>;
  for (const { outcome } of rows) counts[outcome]++;
  return counts;
}
