import { Injectable } from '@nestjs/common';
import { copyLine } from '#core/formats';
import { formatDecimal } from '#core/numbers';
import {
  findPlace,
  noOutcomes,
  planFileRow,
  readingOf,
  RowsByPlace,
  type Directory,
  type FileReading,
  type PlannedValue,
  type RowOutcome,
} from '#core/files';
import { PeriodsRepository } from '#server/calendar';
import { Bulk, readRows, Transactions } from '#server/platform';
import { FileDirectoryService } from './file-directory.service.js';
import { FileImportsRepository, type KeptFile } from './file-imports.repository.js';
import { FileValuesRepository } from './file-values.repository.js';

const outcomeColumns =
  'file_row_outcomes (import_id, row, item_id, outcome, enrollment_id, given_id, given_section, value, before, after, same_as)';
/** Values that are kept at once: few enough for others to be answered in between. */
const batch = 5_000;
const namesShown = 20;
/** Names of sections that are told apart in a file; what holds more is no column of sections. */
const mostUnknownNames = 1000;

/** What is known of the file while its rows go by. */
interface Ground {
  readonly file: KeptFile;
  readonly worker: string;
  readonly signal: AbortSignal;
  readonly reading: FileReading;
  readonly directory: Directory;
}

/** Decides what accepting a file would do, row by row, and keeps it. */
@Injectable()
export class FilePlannerService {
  constructor(
    private readonly transactions: Transactions,
    private readonly bulk: Bulk,
    private readonly files: FileImportsRepository,
    private readonly values: FileValuesRepository,
    private readonly directories: FileDirectoryService,
    private readonly periods: PeriodsRepository,
  ) {}

  async plan(file: KeptFile, worker: string, signal: AbortSignal): Promise<void> {
    const ground = { file, worker, signal, ...(await this.ground(file)) };
    await this.transactions.run(async (queries) => {
      await this.values.forgetPlan(queries, file.id);
      await this.files.passOrThrow(queries, file, worker, { stepsDone: 0, stepCount: 2 * file.rowCount! });
    });
    const rows = await this.findRows(ground);
    const counts = await this.keepOutcomes(ground, rows);
    if (file.rowCount! > batch) await this.values.linesAdded(this.transactions.reading);
    const plan = {
      counts,
      notInFile: await this.notInFile(ground, rows),
      unknownSections: await this.unknownSections(ground),
    };
    await this.pass(ground, { status: 'planned', plan, stepsDone: 0, stepCount: 0 });
  }

  private async ground(file: KeptFile): Promise<Pick<Ground, 'reading' | 'directory'>> {
    const queries = this.transactions.reading;
    const period = await this.periods.byIdOrThrow(queries, file.periodId);
    const items = await this.directories.items(queries, period);
    const reading = readingOf(file)!;
    const sectionIds =
      'id' in reading.section
        ? [reading.section.id]
        : [...new Set(items.flatMap(({ sections }) => sections.map(({ id }) => id)))];
    const names = await this.directories.sectionNames(queries, items, file.namedSections);
    return { reading, directory: await this.directories.directory(queries, period, items, sectionIds, names) };
  }

  /** First it must be known who is in the file more than once. */
  private async findRows(ground: Ground): Promise<RowsByPlace> {
    const rows = new RowsByPlace(ground.directory.roster.enrollmentIds.length);
    for await (const some of this.dataRows(ground)) {
      for (const { row, cells } of some) {
        const place = findPlace(cells, ground.reading, ground.directory);
        if (typeof place === 'number') rows.note(place, row);
      }
      await this.pass(ground, { stepsDone: some.at(-1)?.row ?? 0 });
    }
    return rows;
  }

  private async keepOutcomes(ground: Ground, rows: RowsByPlace): Promise<Record<RowOutcome, number>> {
    const { file, reading, directory, worker } = ground;
    const counts = noOutcomes();
    let lines: string[] = [];
    let last = file.headerRow;
    const keep = async () => {
      const text = lines.join('');
      lines = [];
      await this.bulk.run(async (queries, write) => {
        await this.files.passOrThrow(queries, file, worker, { stepsDone: file.rowCount! + last });
        if (text !== '') await write(outcomeColumns, text);
      });
    };
    for await (const some of this.dataRows(ground)) {
      for (const { row, cells } of some) {
        last = row;
        for (const value of planFileRow(row, cells, reading, directory, rows)) {
          counts[value.outcome]++;
          lines.push(outcomeLine(value, cells, ground));
        }
        if (lines.length >= batch) await keep();
      }
    }
    await keep();
    return counts;
  }

  private async notInFile({ reading, directory }: Ground, rows: RowsByPlace) {
    const { roster } = directory;
    const isMissing = (place: number) =>
      !rows.has(place) &&
      roster.hasLeft[place] === 0 &&
      ('id' in reading.section || inFile.has(roster.sectionIds[place]!));
    const inFile = new Set<number>();
    if ('column' in reading.section)
      roster.sectionIds.forEach((section, place) => {
        if (rows.has(place)) inFile.add(section);
      });
    const missing: number[] = [];
    let count = 0;
    for (let place = 0; place < roster.enrollmentIds.length; place++) {
      if (!isMissing(place)) continue;
      count++;
      if (missing.length < namesShown) missing.push(place);
    }
    const names = await this.directories.studentNames(
      this.transactions.reading,
      missing.map((place) => roster.studentIds[place]!),
    );
    return { count, names };
  }

  private async unknownSections(ground: Ground) {
    const { section } = ground.reading;
    if (!('column' in section)) return [];
    return this.values.unknownSections(
      this.transactions.reading,
      ground.file.id,
      ground.reading.grades[0]!.itemId,
      mostUnknownNames,
    );
  }

  /** The rows below the header in which anything stands. */
  private async *dataRows({ file, signal }: Ground) {
    const bytes = this.files.bytes(this.transactions.reading, file.id);
    for await (const { before, rows } of readRows(bytes, file.form)) {
      signal.throwIfAborted();
      yield rows
        .map((cells, at) => ({ row: before + at + 1, cells }))
        .filter(({ row, cells }) => row > file.headerRow && cells.some((cell) => cell.trim() !== ''));
    }
  }

  private pass({ file, worker }: Ground, values: Partial<KeptFile>): Promise<void> {
    return this.files.passOrThrow(this.transactions.reading, file, worker, values);
  }
}

function outcomeLine(value: PlannedValue, cells: readonly string[], { file, reading, directory }: Ground): string {
  const { row, grade, outcome, place, id, after, sameAs } = value;
  const { roster } = directory;
  const before = place === -1 ? -1 : (roster.computed.get(grade.itemId)?.[place] ?? -1);
  return copyLine([
    file.id,
    row,
    grade.itemId,
    outcome,
    place === -1 ? null : roster.enrollmentIds[place]!,
    id,
    'column' in reading.section ? (cells[reading.section.column] ?? '').trim() : null,
    value.value,
    before === -1 ? null : percentOfSteps(before),
    after && formatDecimal(after),
    sameAs.length > 0 ? `{${sameAs.join(',')}}` : null,
  ]);
}

function percentOfSteps(steps: number): string {
  return formatDecimal({ units: BigInt(steps), digits: 10 });
}
