import type { RuleRemark } from '#contract/audit';
import { NestedList } from '#contract/requests';
import {
  leadingRows,
  rowOutcomes,
  type FilePlan,
  type FileProposals,
  type FileStatus,
  type GradeColumn,
  type RowOutcome,
} from '#core/files';
import { IsIn, IsInt, IsObject, IsOptional, IsString, Length, Max, Min, ValidateIf } from 'class-validator';

/** Megabytes of one file of text, and of one workbook, which must be unpacked in memory. */
export const largestFileMegabytes = 128;
export const largestWorkbookMegabytes = 25;

export class GradeColumnRequest implements GradeColumn {
  @IsInt()
  @Min(0)
  column!: number;

  @IsInt()
  itemId!: number;
}

export class ChooseColumnsRequest {
  @ValidateIf((choice: ChooseColumnsRequest) => choice.idColumn !== null)
  @IsInt()
  @Min(0)
  idColumn!: number | null;

  /** The one section that the file is for. */
  @ValidateIf((choice: ChooseColumnsRequest) => choice.sectionId !== null)
  @IsInt()
  sectionId!: number | null;

  /** The column that names the section of each row; goes before the section. */
  @ValidateIf((choice: ChooseColumnsRequest) => choice.sectionColumn !== null)
  @IsInt()
  @Min(0)
  sectionColumn!: number | null;

  @NestedList(() => GradeColumnRequest, 200)
  grades!: GradeColumnRequest[];

  /** Sections for names in the file that are not known, by the name. */
  @IsObject()
  namedSections!: Record<string, number>;
}

/** Reads a file again: from another sheet, or with its columns named in another row. */
export class ReadAgainRequest {
  /** Null for the one that was read. */
  @ValidateIf((request: ReadAgainRequest) => request.sheet !== null)
  @IsString()
  @Length(1, 255)
  sheet!: string | null;

  /** Position of the row that names the columns, 1 for the first, 0 where none does; null where it is to be found. */
  @ValidateIf((request: ReadAgainRequest) => request.headerRow !== null)
  @IsInt({ message: 'a row of the first thirty, or 0 for none' })
  @Min(0, { message: 'a row of the first thirty, or 0 for none' })
  @Max(leadingRows, { message: 'a row of the first thirty, or 0 for none' })
  headerRow!: number | null;
}

export class AcceptImportRequest {
  /** The number of the plan that was looked at. */
  @IsInt()
  planNumber!: number;
}

/** Which lines of a file's ledger are asked for. */
export class FileRowsQuery {
  /** One outcome, or all that are left out although something stands there. */
  @IsOptional()
  @IsIn([...rowOutcomes, 'left-out'])
  show?: RowOutcome | 'left-out';
}

export interface FileImportReply {
  readonly id: number;
  readonly fileName: string;
  readonly byteSize: number;
  readonly encoding: string;
  readonly status: FileStatus;
  /** How far the work under way is; steps are rows. */
  readonly stepsDone: number;
  readonly stepCount: number;
  readonly readBy: string;
  readonly readAt: string;
  readonly acceptedAt: string | null;
  readonly periodName: string;
  /** Report items of the period that a column can be for. */
  readonly items: readonly { readonly id: number; readonly name: string }[];
  readonly header: readonly string[];
  /** Position of the row that names the columns, 1 for the first; 0 where none does. */
  readonly headerRow: number;
  readonly leadingRows: readonly (readonly string[])[];
  /** Of a workbook; empty for text. */
  readonly sheets: readonly { readonly name: string; readonly isHidden: boolean }[];
  readonly sheet: string | null;
  /** Several sheets can be seen, and nobody has said yet which is meant. */
  readonly asksSheet: boolean;
  readonly sampleRows: readonly (readonly string[])[];
  /** Rows below the header; null until they were counted. */
  readonly dataRows: number | null;
  readonly idColumn: number | null;
  readonly sectionId: number | null;
  readonly sectionColumn: number | null;
  readonly grades: readonly GradeColumn[];
  readonly namedSections: Readonly<Record<string, number>>;
  readonly proposals: FileProposals;
  /** Null until everything is chosen and planned. */
  readonly plan: FilePlanReply | null;
  /** Why the last work came to nothing. */
  readonly problem: { readonly title: string; readonly detail: string } | null;
}

export interface FilePlanReply extends FilePlan {
  readonly number: number;
}

export interface FileRowsReply {
  readonly rows: readonly FileRowReply[];
  /** How many there are altogether. */
  readonly total: number;
}

export interface FileRowReply {
  readonly row: number;
  readonly itemId: number;
  readonly outcome: RowOutcome;
  /** What the file calls the student and the section, and the value, as they stand there. */
  readonly givenId: string;
  readonly givenSection: string | null;
  readonly value: string;
  /** Family name first; empty where nobody is known. */
  readonly name: string;
  /** The section that was found; null for none, and where all rows are of one. */
  readonly section: string | null;
  readonly before: string | null;
  readonly after: string | null;
  readonly sameAs: readonly number[];
  /** What the rules of the audit would say of the grade once the row is accepted, and do not say now. */
  readonly remarks: readonly RuleRemark[];
}

export interface FileImportSummaryReply {
  readonly id: number;
  readonly fileName: string;
  /** Null where the file is for several. */
  readonly section: string | null;
  readonly status: FileStatus;
  readonly stepsDone: number;
  readonly stepCount: number;
  readonly readBy: string;
  readonly readAt: string;
  readonly written: number;
}
