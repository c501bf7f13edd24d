import { StreamableFile } from '@nestjs/common';
import { planRows, type Cells, type CellTable } from '#core/cell-tables';
import type { TableImportReply } from '#contract/cell-tables';
import {
  readTableOrThrow,
  Refusal,
  spreadsheetTypes,
  uploadedOrThrow,
  writeSpreadsheet,
  type SpreadsheetType,
} from '#server/platform';

/** Megabytes of a file of rows. */
export const largestTableMegabytes = 10;

/** A file of rows as it was sent. */
export interface UploadedRows {
  readonly name: string;
  readonly rows: readonly (readonly string[])[];
}

/** The name and the rows of a file that was sent. @throws Refusal as reading the file does */
export async function uploadedTableOrThrow(upload: Express.Multer.File | undefined): Promise<UploadedRows> {
  const { file, name } = uploadedOrThrow(upload, 'a CSV or XLSX file');
  const { table } = await readTableOrThrow(file.buffer, name);
  return { name, rows: table.rows };
}

/** Codes of the refusals of files that lack the columns without which no row is known. */
type MissingColumns =
  | 'column-code-missing'
  | 'columns-of-names-missing'
  | 'columns-of-sections-missing'
  | 'columns-of-enrollments-missing'
  | 'columns-of-attendance-missing';

/**
 * What taking in a file would change. Nothing is written; the changes are saved like typed ones.
 * @param missing the code of the refusal where no row names the needed columns
 */
export function planOrRefuse<Field extends string>(
  table: CellTable<Field>,
  { name, rows }: UploadedRows,
  existing: readonly { readonly id: number; readonly cells: Cells<Field> }[],
  missing: MissingColumns,
): TableImportReply<Field> {
  const plan = planRows(table, rows, existing);
  if (!plan) throw new Refusal(missing, { name });
  return { fileName: name, headerRow: plan.headerRow, fields: Object.keys(plan.columns), rows: plan.rows };
}

/** All rows as a file that can be taken in again. @param label what the whole is called: "Courses" */
export function fileOfRows<Field extends string>(
  { fields, headings }: CellTable<Field>,
  label: string,
  rows: readonly Cells<Field>[],
  type: SpreadsheetType,
): StreamableFile {
  const lines = rows.map((cells) => fields.map((field) => cells[field]));
  return fileOfLines([fields.map((field) => headings[field]), ...lines], label, type);
}

/** Lines of cells, the headings first, as a file to be saved. @param label what the whole is called: "Findings" */
export function fileOfLines(
  lines: readonly (readonly string[])[],
  label: string,
  type: SpreadsheetType,
): StreamableFile {
  return new StreamableFile(writeSpreadsheet(type, label, lines), {
    type: spreadsheetTypes[type],
    disposition: `attachment; filename="${label.toLowerCase()}.${type}"`,
  });
}
