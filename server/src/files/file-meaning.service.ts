import { Injectable } from '@nestjs/common';
import { findHeaderRow, foldKey, leadingRows, type FileChoice } from '#core/files';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { Refusal, Transactions } from '#server/platform';
import { FileDirectoryService } from './file-directory.service.js';
import { FileImportsRepository, type KeptFile } from './file-imports.repository.js';
import { choiceOf, proposeColumns } from './file-proposals.js';

type Rows = readonly (readonly string[])[];

const samplesKept = 5;

/** What the first rows of a file say: where its columns are named, and what each most likely means. */
export interface FileMeaning {
  readonly head: Pick<KeptFile, 'headerRow' | 'header' | 'leadingRows' | 'sampleRows' | 'proposals'>;
  readonly choice: FileChoice;
  readonly namedSections: KeptFile['namedSections'];
}

@Injectable()
export class FileMeaningService {
  constructor(
    private readonly transactions: Transactions,
    private readonly files: FileImportsRepository,
    private readonly directories: FileDirectoryService,
    private readonly periods: PeriodsRepository,
  ) {}

  /**
   * @param headerRow position of the row that names the columns, 0 where none does; null where it is to be found
   * @throws Refusal not-found where the period has nothing to import for
   */
  async of(period: SchoolPeriod, firstRows: Rows, headerRow: number | null): Promise<FileMeaning> {
    const queries = this.transactions.reading;
    const items = await this.directories.items(queries, period);
    if (items.length === 0) throw new Refusal('not-found', { what: `report item in ${period.name}`, id: period.id });
    const students = await this.directories.students();
    const found = findHeaderRow(firstRows, (cell) => students.has(foldKey(cell)));
    const at = headerRow ?? (found === undefined ? 0 : found + 1);
    const rows = firstRows.slice(at);
    const width = Math.max(...firstRows.map((row) => row.length));
    // Without names every column has a blank one.
    const header = at === 0 ? Array.from({ length: width }, () => '') : firstRows[at - 1]!.map((cell) => cell.trim());
    const earlier = at === 0 ? undefined : await this.files.earlierReading(queries, period.schoolId, header);
    const others = (await this.periods.ofSchool(queries, period.schoolId)).filter(({ id }) => id !== period.id);
    const periods = { own: period.name, others: others.map(({ name }) => name) };
    const proposals = await proposeColumns(queries, this.directories, students, header, rows, items, periods, earlier);
    return {
      head: {
        headerRow: at,
        header,
        leadingRows: firstRows.slice(0, leadingRows),
        sampleRows: rows.slice(0, samplesKept),
        proposals,
      },
      choice: choiceOf(proposals),
      namedSections: earlier?.namedSections ?? {},
    };
  }
}
